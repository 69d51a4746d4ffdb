import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { distance, ALIKE, type Portrait } from '../../../../src/lib/core/lift/likeness.ts';
import { groupsOf, Looks } from '../../../../src/lib/core/lift/looks.ts';
import { fromPoints } from '../../../../src/lib/core/units.ts';

const some = fc.constantFrom;
const place = fc.record({
	look: fc.record(
		{
			fill: some('none' as const, '#FFFFFF' as const, '#2F5D50' as const),
			ink: some('#000000' as const, '#FFFFFF' as const),
			family: some('Source Serif 4', 'Source Sans 3'),
			size: some(fromPoints(9), fromPoints(10)),
			weight: some(400, 700),
			italic: fc.boolean(),
			h: some('start' as const, 'end' as const)
		},
		{ requiredKeys: [] }
	),
	top: some('', 'solid 6350 #000000'),
	bottom: some('', 'solid 6350 #000000'),
	start: some('', 'solid 6350 #000000')
});
/** Portraits of one another's kind, so that many are near: a few are drawn, and each of their places now and then. */
const portraits = fc
	.array(fc.record({ header: place, body: place, total: place }), { minLength: 1, maxLength: 3 })
	.chain((models) =>
		fc.array(
			fc
				.tuple(
					some(...models),
					fc.dictionary(some('header', 'body', 'total'), place, { maxKeys: 1 }),
					fc.subarray(['header', 'body', 'total'], { minLength: 1 })
				)
				.map(
					([model, other, has]): Portrait => new Map(has.map((key) => [key, { ...model, ...other }[key as 'body']!]))
				),
			{ maxLength: 40 }
		)
	);

describe('looks', () => {
	it('finds the same as comparing with all', () => {
		fc.assert(
			fc.property(portraits, place, (all, other) => {
				const looks = new Looks();
				all.forEach((one) => looks.add(one));
				for (const asked of [...all, new Map([['body', other]])]) {
					const apart = all.map((one) => distance(asked, one));
					const least = Math.min(...apart, Infinity);
					const found = looks.nearest(asked);
					if (least > ALIKE) assert.equal(found, undefined);
					else assert.ok(found && Math.abs(found.distance - least) < 1e-9, `${found?.distance} for ${least}`);
				}
			})
		);
	});
	it('groups everything once, and whatever looks the same stands together', () => {
		fc.assert(
			fc.property(portraits, (all) => {
				const items = all.map((look, at) => ({ look, at }));
				const groups = groupsOf(items, ({ look }) => look);
				assert.deepEqual(
					groups.flatMap((group) => group.map(({ at }) => at)).sort((a, b) => a - b),
					items.map(({ at }) => at)
				);
				for (const group of groups)
					for (const { look } of group) assert.ok(distance(group[0]!.look, look) <= ALIKE + 1e-9);
			})
		);
	});
	it('knows nothing of a look that was taken out', () => {
		const looks = new Looks();
		const [one] = fc.sample(
			portraits.filter(({ length }) => length > 0),
			{ numRuns: 1, seed: 7 }
		)[0]!;
		const index = looks.add(one!);
		assert.equal(looks.nearest(one!)?.index, index);
		looks.remove(index);
		assert.equal(looks.nearest(one!), undefined);
	});
});
