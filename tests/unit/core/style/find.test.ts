import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { LEAVES } from '../../../../src/lib/core/properties/index.ts';
import { allSettings, findSettings } from '../../../../src/lib/core/style/find.ts';

const PARTS = ['ground', 'rowBand:1', 'columns:money', 'header', 'total'];
const settings = allSettings(PARTS);
const first = (typed: string) => findSettings(settings, typed, 10)[0];

describe('settings are found by words', () => {
	it('of the part and of what it sets, in any order, also by their beginnings', () => {
		for (const typed of ['head size', 'size header', 'HEADER  si']) {
			assert.equal(first(typed)?.part, 'header', typed);
			assert.equal(first(typed)?.leaf.path, 'text.size', typed);
		}
		assert.equal(first('money ink')?.part, 'columns:money');
		assert.equal(first('no such thing'), undefined);
		assert.deepEqual(findSettings(settings, '  ', 10), []);
	});
	it('every one by its own words, and nothing that lacks one of them', () => {
		fc.assert(
			fc.property(fc.constantFrom(...settings), (setting) => {
				const found = findSettings(settings, setting.words, settings.length);
				assert.ok(found.includes(setting));
				for (const one of found)
					for (const word of setting.words.toLowerCase().split(/\s+/))
						assert.ok(`${one.words} ${one.leaf.label}`.toLowerCase().includes(word));
			})
		);
	});
	it('a leaf that one part alone can set is offered there alone', () => {
		const only = LEAVES.filter((leaf) => leaf.only);
		assert.ok(only.length);
		for (const leaf of only)
			assert.deepEqual(
				settings.filter((one) => one.leaf.path === leaf.path).map(({ part }) => part),
				[leaf.only]
			);
	});
});
