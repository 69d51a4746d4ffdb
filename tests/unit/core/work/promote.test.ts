import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { appearanceOf } from '../../../../src/lib/core/cascade/look.ts';
import { edgeAt, resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { withLeavesAt, withRules } from '../../../../src/lib/core/style/edit.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { leavesOf } from '../../../../src/lib/core/style/leaves.ts';
import type { Style } from '../../../../src/lib/core/style/types.ts';
import { typed } from '../../../../src/lib/core/work/cells.ts';
import { joinCells } from '../../../../src/lib/core/work/join.ts';
import { promotionOf, touchedSides, touchKey } from '../../../../src/lib/core/work/promote.ts';
import { SIDES } from '../../../../src/lib/core/table/grid.ts';
import { cellOf, emptyTable, type WorkTable } from '../../../../src/lib/core/work/table.ts';
import { tableOf } from '../../../../src/lib/core/work/convert.ts';
import { lined, touched, touchList } from '../../../../src/lib/core/work/touches.ts';

const ledger = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const LINE = { pattern: 'solid', weight: '2pt', ink: '#AA0000' } as const;

function begin(): WorkTable {
	let work = emptyTable(5, 3, { totals: 1 });
	for (let r = 0; r < 5; r++)
		for (let c = 0; c < 3; c++) work = typed(work, r, c, r ? `cell ${r}.${c}` : `Column ${c}`);
	return work;
}
/** How a cell and its four sides show in a style. */
function seen(work: WorkTable, style: Style, r: number, c: number) {
	const resolved = resolve(tableOf(work), flatten(style, find), FIRST_HOUSE);
	const { looks, cellLook, lines } = appearanceOf(resolved);
	return {
		look: looks[cellLook[tableOf(work).slots[r * 3 + c]!]!],
		sides: SIDES.map((side) => lines[edgeAt(resolved.structure, r, c, side)])
	};
}
const structureIn = (work: WorkTable, style: Style) =>
	resolve(tableOf(work), flatten(style, find), FIRST_HOUSE).structure;
/** Takes away the touches that a promotion said. */
function without(work: WorkTable, r: number, c: number, edges: ReturnType<typeof promotionOf>['edges']): WorkTable {
	const leaves = [...leavesOf(cellOf(work, r, c).touch ?? {})].map(([path]) => [path, undefined] as const);
	return lined(touched(work, [{ r, c }], leaves), edges, null);
}

test('touches that become a cell rule show as they did, sides and all, and are gone as touches', () => {
	fc.assert(
		fc.property(
			fc.integer({ min: 1, max: 3 }),
			fc.integer({ min: 0, max: 2 }),
			fc.subarray([...SIDES]),
			fc.boolean(),
			(r, c, sides, isFilled) => {
				let work = lined(
					begin(),
					sides.map((side) => ({ r, c, side })),
					LINE
				);
				if (isFilled) work = touched(work, [{ r, c }], [['fill.ink', '#DDEEFF']]);
				const before = seen(work, ledger, r, c);
				const { set, edges } = promotionOf(work, structureIn(work, ledger), r, c);
				const where = { column: `Column ${c}`, is: '=' as const, value: `cell ${r}.${c}` };
				const style = withRules(ledger, [...(ledger.rules ?? []), { name: 'once touched', where, set }]);
				const bare = without(work, r, c, edges);
				assert.deepEqual(touchList(bare), []);
				assert.deepEqual(seen(bare, style, r, c), before);
			}
		),
		{ numRuns: 60 }
	);
});

test('a touched side becomes the line that it is for the part', () => {
	const work = lined(begin(), [{ r: 0, c: 1, side: 'bottom' }], LINE);
	const { set, edges } = promotionOf(work, structureIn(work, ledger), 0, 1, 'header');
	assert.deepEqual(set, { lines: { bottom: LINE } });
	const style = withLeavesAt(ledger, 'header', leavesOf(set));
	const bare = without(work, 0, 1, edges);
	for (const c of [0, 1, 2]) assert.equal(seen(bare, style, 0, c).sides[1]!.weight, 25_400, `column ${c}`);
	// Between the rows of the ground, it is another of its lines.
	const inside = lined(begin(), [{ r: 2, c: 1, side: 'bottom' }], LINE);
	assert.deepEqual(promotionOf(inside, structureIn(inside, ledger), 2, 1, 'ground').set, {
		lines: { betweenRows: LINE }
	});
});

test('cells that are touched alike are told apart from others; a joined side of two lines is none', () => {
	let work = lined(begin(), [{ r: 1, c: 0, side: 'start' }], LINE);
	work = lined(work, [{ r: 2, c: 0, side: 'start' }], LINE);
	assert.equal(touchKey(work, 1, 0), touchKey(work, 2, 0));
	assert.equal(touchKey(work, 3, 1), undefined);
	work = touched(work, [{ r: 2, c: 0 }], [['text.weight', 700]]);
	assert.notEqual(touchKey(work, 1, 0), touchKey(work, 2, 0));
	let joined = joinCells(begin(), { top: 1, bottom: 1, start: 0, end: 1 }, 'one');
	joined = lined(joined, [{ r: 1, c: 0, side: 'bottom' }], LINE);
	assert.deepEqual(touchedSides(joined, 1, 0), []);
	joined = lined(joined, [{ r: 1, c: 1, side: 'bottom' }], LINE);
	assert.deepEqual(
		touchedSides(joined, 1, 0).map(({ side, edges }) => [side, edges.length]),
		[['bottom', 2]]
	);
});
