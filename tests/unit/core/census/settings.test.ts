import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { appearanceOf, type Line, type Look } from '../../../../src/lib/core/cascade/look.ts';
import { resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { settingsIn, varyingSetting, VARYING, type Seen } from '../../../../src/lib/core/census/settings.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import {
	isFlagged,
	judge,
	LEVELS,
	measuresOf,
	mendingOf,
	POLICY_RULES,
	type Policy,
	type Subject
} from '../../../../src/lib/core/policy/policy.ts';
import { sameShown } from '../../../../src/lib/core/properties/shadow.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { OWN_LOOK } from '../../../../src/lib/core/style/bare.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { createGrid, type Touch } from '../../../../src/lib/core/table/grid.ts';
import { withTouches } from '../../../../src/lib/core/table/touches.ts';
import { fromPoints } from '../../../../src/lib/core/units.ts';

const some = fc.constantFrom;
const anyLook: fc.Arbitrary<Look> = fc.record(
	{
		fill: some('none' as const, '#FFF2CC' as const, '#24324F' as const, '#808080' as const),
		ink: some('#000000' as const, '#FFFFFF' as const, '#777777' as const),
		family: some('Source Serif 4', 'IBM Plex Sans'),
		size: some(fromPoints(6), fromPoints(9), fromPoints(11)),
		weight: some(400, 700),
		h: some('start' as const, 'end' as const, 'middle' as const)
	},
	{ requiredKeys: [] }
);
const anyLine: fc.Arbitrary<Line | null> = fc.option(
	fc.record({
		pattern: some('solid' as const, 'dashed' as const),
		weight: some(fromPoints(0.5), fromPoints(1.5)),
		ink: some('#000000' as const, '#24324F' as const)
	})
);
const TEXTS = [
	['Bed', 'Plants', 'Cost'],
	['Fern', '12', '£12.00'],
	['Heath', '8', '£30.50'],
	['', '3', '£1.00'],
	['Total', '23', '£43.50']
];
/** A table that looks any way, cell by cell and edge by edge; its first row may be joined. */
const anySeen: fc.Arbitrary<Seen> = fc
	.record({
		isJoined: fc.boolean(),
		looks: fc.array(anyLook, { minLength: 1, maxLength: 4 }),
		lines: fc.array(anyLine, { minLength: 1, maxLength: 3 }),
		at: fc.infiniteStream(fc.nat({ max: 11 }))
	})
	.map(({ isJoined, looks, lines, at }) => {
		const spans = isJoined ? [{ r: 3, c: 0, rows: 1, cols: 2 }] : [];
		const { table } = recognisedTable(
			createGrid(
				TEXTS.map((row, r) => (isJoined && r === 3 ? ['', null, row[2]!] : row)),
				spans
			)
		);
		const next = (most: number) => at.next().value % most;
		const across = Int32Array.from({ length: (table.rows + 1) * table.columns }, () => next(lines.length));
		const down = Int32Array.from({ length: table.rows * (table.columns + 1) }, (_, i) =>
			isJoined && i === 3 * (table.columns + 1) + 1 ? -1 : next(lines.length)
		);
		const cellLook = Int32Array.from(table.cells, () => next(looks.length));
		return { table, appearance: { cellLook, looks, across, down, lines } };
	});
/** A table with touches over how it came. */
const touchedBy = ({ table, appearance }: Seen, touches: readonly Touch[]): Seen => {
	const own = { ...table, touches, carry: [], partsOff: [] };
	return { table: own, appearance: appearanceOf(resolve(own, flatten(OWN_LOOK), FIRST_HOUSE), appearance) };
};

describe('settings that vary', () => {
	it('are shown everywhere once they are brought to a value, and bringing them again does nothing', () => {
		fc.assert(
			fc.property(anySeen, anySeen, some(...VARYING), (seen, other, setting) => {
				const value = setting.read(other);
				if (value === undefined || !setting.canBring(value)) return;
				const touches = setting.bring(seen, value, (ink) => ink);
				const after = touchedBy(seen, withTouches([], touches));
				assert.ok(sameShown(setting.read(after), value), `${setting.words}: ${setting.say(setting.read(after))}`);
				assert.deepEqual(
					setting.bring(after, value, (ink) => ink),
					[]
				);
			}),
			{ numRuns: 300 }
		);
	});
	it('say nothing of other settings in other rows', () => {
		fc.assert(
			fc.property(anySeen, (seen) => {
				const setting = varyingSetting('header fill')!;
				const before = settingsIn(seen);
				const after = settingsIn(
					touchedBy(
						seen,
						setting.bring(seen, '#123456', (ink) => ink)
					)
				);
				for (const [code, value] of before)
					if (!code.startsWith('header')) assert.ok(sameShown(after.get(code), value), code);
			})
		);
	});
});

const anyRule = some(...POLICY_RULES).chain(({ name, usual, settings }) =>
	fc.record({
		rule: fc.constant(name),
		level: some(...LEVELS),
		...(settings && 'least' in settings ? { least: some(3, 4.5, 7, 8, 10) } : {}),
		...('styles' in usual ? { styles: fc.subarray(['Quiet Lines', 'Beacon'], { minLength: 1 }) } : {})
	})
);
const anySubject: fc.Arbitrary<Subject> = fc
	.record({
		seen: anySeen,
		wears: fc.option(some('Quiet Lines', 'Season Ledger'), { nil: undefined }),
		caption: fc.option(some('', 'Costs'), { nil: undefined }),
		where: some('body', 'nested'),
		touches: some<readonly Touch[]>([], [{ r: 1, c: 1, set: { text: { italic: true } } }])
	})
	.map(({ seen, ...rest }) => ({ ...seen, purpose: 'data', ...rest }));

describe('what is kept of a table for policies', () => {
	it('flags exactly what judging it finds', () => {
		fc.assert(
			fc.property(anySubject, anyRule, (subject, rule) => {
				const policy: Policy = { format: 'heptarch-policy', version: 1, rules: [rule] };
				assert.equal(isFlagged(rule, measuresOf(subject)), judge(policy, subject).length > 0, rule.rule);
			}),
			{ numRuns: 300 }
		);
	});
	it('is put right by what a rule has to mend it', () => {
		fc.assert(
			fc.property(anySubject, anyRule, (subject, rule) => {
				const mending = mendingOf(rule, subject);
				if (!mending) return;
				const after: Subject =
					'style' in mending
						? { ...subject, wears: mending.style }
						: 'untouched' in mending
							? { ...subject, touches: [] }
							: { ...subject, ...touchedBy(subject, withTouches([], mending.touches)) };
				const worst = ({ appearance }: Subject) => JSON.stringify(appearance.looks);
				// Grey takes neither black nor white beyond 7:1; then it is as good as it gets.
				if (rule.rule === 'contrast' && Number(rule.least) > 4.5) assert.notEqual(worst(after), worst(subject));
				else assert.equal(isFlagged(rule, measuresOf(after)), false, rule.rule);
			}),
			{ numRuns: 300 }
		);
	});
});
