import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { pushUp, withLeafAt } from '../../../src/lib/core/style/edit.ts';
import type { Style } from '../../../src/lib/core/style/types.ts';
import { reachOf } from '../../../src/lib/workbench/reach.ts';

const worn = { tables: 0, documents: 0 };
const styles = DEMO_STYLES.map((definition) => ({ id: definition.name, definition, worn }));
const named = (name: string): Style => DEMO_STYLES.find((style) => style.name === name)!;
const house = { before: FIRST_HOUSE, after: FIRST_HOUSE };
const names = (reached: ReturnType<typeof reachOf>) => reached.map(({ name }) => name).sort();

describe('what a change elsewhere reaches', () => {
	it('is nothing where nothing changes, and where a setting only moves to a base that only one style builds on', () => {
		assert.deepEqual(reachOf(styles, house), []);
		const [alone, base] = [
			{ ...named('Beacon'), name: 'a', basedOn: 'b' },
			{ ...named('Beacon'), name: 'b', parts: {} }
		];
		const two = [alone, base].map((definition) => ({ id: definition.name, definition, worn }));
		const place = Object.keys(alone.parts)[0]!;
		const pushed = pushUp(withLeafAt(alone, place, 'text.size', '9pt'), base, place, 'text.size');
		const said = [{ ...two[0]!, definition: withLeafAt(alone, place, 'text.size', '9pt') }, two[1]!];
		assert.deepEqual(names(reachOf(said, house, { a: pushed.style, b: pushed.base })), ['b']);
	});
	it('is a base and all that build on it and do not say it themselves', () => {
		const base = withLeafAt(named('House base'), 'note', 'text.tracking', '1pt');
		const building = DEMO_STYLES.filter(({ basedOn }) => basedOn === 'House base').map(({ name }) => name);
		const reached = names(reachOf(styles, house, { 'House base': base }));
		assert.ok(reached.includes('House base') && reached.length > 1);
		assert.ok(reached.every((name) => name === 'House base' || building.includes(name)));
	});
	it('is all that name an ink which changes, those that are put aside left out', () => {
		const after = { ...FIRST_HOUSE, inks: { ...FIRST_HOUSE.inks, fern: '#000001' } };
		const reached = reachOf(styles, { before: FIRST_HOUSE, after });
		assert.ok(reached.length > 0 && reached.length < styles.length);
		const aside = styles.map((style) => ({ ...style, aside: style.id === reached[0]!.id }));
		assert.equal(reachOf(aside, { before: FIRST_HOUSE, after }).length, reached.length - 1);
	});
});
