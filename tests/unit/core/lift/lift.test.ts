import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { seasonReport } from '../../../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { appearanceOf, type Appearance } from '../../../../src/lib/core/cascade/look.ts';
import { resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { choose } from '../../../../src/lib/core/lift/choose.ts';
import { lift } from '../../../../src/lib/core/lift/lift.ts';
import { ALIKE, distance, portrait } from '../../../../src/lib/core/lift/likeness.ts';
import { groupsOf } from '../../../../src/lib/core/lift/looks.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { leavesOf } from '../../../../src/lib/core/style/leaves.ts';
import { checkStyle } from '../../../../src/lib/core/style/validate.ts';
import type { Style } from '../../../../src/lib/core/style/types.ts';
import type { Table } from '../../../../src/lib/core/table/grid.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { builtInSpecimen } from '../../../../src/lib/workbench/specimen.ts';

const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const shown = (table: Table, style: Style) => appearanceOf(resolve(table, flatten(style, find), FIRST_HOUSE));
const NOTHING: Readonly<Record<string, unknown>> = {
	fill: 'none',
	italic: false,
	underline: 'none',
	case: 'none',
	tracking: 0,
	rotate: 0
};
const line = (appearance: Appearance, edge: number) => {
	const found = edge < 0 ? null : appearance.lines[edge]!;
	return !found || found.pattern === 'none' ? null : found;
};

/** Every cell and edge as wanted. */
function same(table: Table, wanted: Appearance, got: Appearance, what: string) {
	table.cells.forEach(({ r, c }, i) => {
		const [want, have] = [wanted.looks[wanted.cellLook[i]!]!, got.looks[got.cellLook[i]!]!];
		for (const [field, value] of Object.entries(want))
			if (!field.startsWith('diagonal'))
				assert.deepEqual(have[field as keyof typeof have] ?? NOTHING[field], value, `${what}: ${field} of ${r}, ${c}`);
	});
	for (const which of ['across', 'down'] as const)
		wanted[which].forEach((edge, i) =>
			assert.deepEqual(line(got, got[which][i]!), line(wanted, edge), `${what}: ${which} ${i}`)
		);
}
const settingsOf = (style: Style): number => {
	const flat = flatten(style, find);
	return [...flat.parts.values()].reduce((sum, leaves) => sum + leaves.size, 0);
};

describe('choosing what each part says', () => {
	it('is least: one setting for many, an exception where it pays', () => {
		const { settings, missed } = choose(
			[
				{ sayers: ['ground'], wanted: new Map([['a', 10]]) },
				{ sayers: ['ground', 'band'], wanted: new Map([['b', 10]]) },
				{ sayers: ['ground', 'band', 'total'], wanted: new Map([['a', 1]]) }
			],
			['ground', 'band', 'total']
		);
		assert.deepEqual(
			[...settings],
			[
				['ground', 'a'],
				['band', 'b']
			]
		);
		assert.equal(missed, 1, 'one cell alone is no setting');
	});
	it('never costs more than saying nothing, or than saying all on one part', () => {
		const names = ['a', 'b', 'c'];
		const demand = fc.record({
			sayers: fc.subarray(names, { minLength: 1 }),
			wanted: fc
				.dictionary(fc.constantFrom('x', 'y'), fc.integer({ min: 1, max: 9 }), { minKeys: 1 })
				.map((entries) => new Map<string | undefined, number>(Object.entries(entries)))
		});
		fc.assert(
			fc.property(fc.array(demand, { minLength: 1, maxLength: 6 }), (demands) => {
				const { settings, missed } = choose(demands, names);
				const all = demands.reduce((sum, { wanted }) => sum + [...wanted.values()].reduce((a, b) => a + b, 0), 0);
				assert.ok(settings.size + missed <= all);
			})
		);
	});
});

describe('lifting a style from a table', () => {
	it('that a style made gives that style back: the same cells and edges, no more settings', async () => {
		const { tables } = await readDocx(await seasonReport());
		const grids = [builtInSpecimen().table, ...tables.slice(0, 4).map(({ table }) => table)];
		for (const style of DEMO_STYLES)
			for (const [i, table] of grids.entries()) {
				const wanted = shown(table, style);
				const { style: lifted, touches, settings } = lift(table, wanted, FIRST_HOUSE, 'lifted');
				checkStyle(lifted);
				same(table, wanted, shown({ ...table, touches }, lifted), `${style.name} on table ${i}`);
				assert.ok(
					settings + touches.length <= settingsOf(style),
					`${style.name} on table ${i}: ${settings} + ${touches.length} of ${settingsOf(style)}`
				);
			}
	});
	it('formatted by hand reproduces it whole with its touches, most of it by the style', async () => {
		const { tables } = await readDocx(await seasonReport());
		for (const { index, table, appearance } of tables) {
			const { style, touches, reproduced } = lift(table, appearance, FIRST_HOUSE, 'lifted');
			same(table, appearance, shown({ ...table, touches }, style), `table ${index + 1}`);
			assert.ok(reproduced > 0.9, `table ${index + 1}: ${reproduced}`);
			assert.ok(Object.values(style.parts).reduce((sum, set) => sum + leavesOf(set).size, 0) < 60);
		}
	});
});

describe('likeness', () => {
	it('is nothing between a table and itself, and symmetric', async () => {
		const { tables } = await readDocx(await seasonReport());
		const portraits = tables.map(({ table, appearance }) => portrait(table, appearance));
		for (const a of portraits)
			for (const b of portraits) {
				assert.equal(distance(a, b), distance(b, a));
				if (a === b) assert.equal(distance(a, b), 0);
			}
	});
	it('groups the tables that wear one style, whatever their size, and no others', async () => {
		const { tables } = await readDocx(await seasonReport());
		const items = ['Season Ledger', 'Beacon', 'Quiet Lines'].flatMap((name) =>
			tables.slice(0, 4).map(({ table }) => ({ name, look: portrait(table, shown(table, find(name)!)) }))
		);
		const groups = groupsOf(items, ({ look }) => look);
		assert.deepEqual(
			groups.map((group) => [...new Set(group.map(({ name }) => name))].join()).sort(),
			['Beacon', 'Quiet Lines', 'Season Ledger'],
			`alike up to ${ALIKE}`
		);
	});
});
