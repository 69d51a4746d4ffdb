import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { RowRole } from '../../../../src/lib/core/roles/index.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { createGrid, SIDES } from '../../../../src/lib/core/table/grid.ts';
import { insertColumns, insertRows, moveLines, orderRows, removeLines } from '../../../../src/lib/core/work/lines.ts';
import { sortRows } from '../../../../src/lib/core/work/sort.ts';
import { edgeHome } from '../../../../src/lib/core/work/edges.ts';
import { workOf } from '../../../../src/lib/core/work/convert.ts';
import { type WorkTable } from '../../../../src/lib/core/work/table.ts';
import { lineAt, lined, touchList } from '../../../../src/lib/core/work/touches.ts';

const LINE = { pattern: 'double', weight: '1.5pt', ink: '#9F1239' } as const;
const ROLES: RowRole[] = ['header:1', 'body', 'body', 'body', 'total'];
const begin = (roles = ROLES): WorkTable =>
	workOf({
		...recognisedTable(createGrid(roles.map((role, r) => [`${role} ${r}`, String((r * 7) % 5)]))).table,
		roles
	});
/** Rows above which a touched line is, in the first column, by their text; the foot of the table is called so. */
const above = (work: WorkTable) => {
	const found: string[] = [];
	for (let r = 0; r <= work.rows.length; r++) {
		const edge =
			r < work.rows.length ? ({ r, c: 0, side: 'top' } as const) : ({ r: r - 1, c: 0, side: 'bottom' } as const);
		const slot = work.rows[r]?.cells[0];
		if (lineAt(work, edge)) found.push(slot && 'text' in slot ? slot.text : 'foot');
	}
	return found;
};

describe('touched edges', () => {
	it('above a total stay there, from whichever side they were touched', () => {
		for (const edge of [{ r: 4, c: 0, side: 'top' } as const, { r: 3, c: 0, side: 'bottom' } as const]) {
			const work = lined(begin(), [edge], LINE);
			assert.deepEqual(above(work), ['total 4']);
			assert.deepEqual(above(sortRows(work, [{ column: 1, order: 'falling' }], 'en-GB')), ['total 4']);
			assert.deepEqual(above(insertRows(work, 4, 1, 3)), ['total 4']);
			assert.deepEqual(above(removeLines(work, 'rows', new Set([3]))), ['total 4']);
		}
	});
	it('go with the ordinary row that they were touched from', () => {
		const work = lined(begin(), [{ r: 3, c: 0, side: 'top' }], LINE);
		assert.deepEqual(above(removeLines(work, 'rows', new Set([2]))), ['body 3']);
		assert.deepEqual(above(insertRows(work, 3, 1, 2)), ['body 3']);
		assert.deepEqual(above(orderRows(work, [0, 3, 1, 2, 4])), ['body 3']);
		const after = lined(begin(), [{ r: 2, c: 0, side: 'bottom' }], LINE);
		assert.deepEqual(above(insertRows(after, 3, 1, 2)), [''], 'the new row comes under the line');
	});
	it('stay with the neighbour when their row goes, unless it has one', () => {
		const own = { ...LINE, ink: '#123456' };
		const work = lined(begin(), [{ r: 2, c: 0, side: 'top' }], LINE);
		assert.deepEqual(above(removeLines(work, 'rows', new Set([2]))), ['body 3']);
		const both = lined(work, [{ r: 3, c: 0, side: 'top' }], own);
		const left = removeLines(both, 'rows', new Set([2]));
		assert.deepEqual(lineAt(left, { r: 2, c: 0, side: 'top' }), own);
		assert.equal(touchList(left).length, 1);
	});
	it('at the rim stay at the rim', () => {
		const roles: RowRole[] = ['header:1', 'body', 'body'];
		const foot = lined(begin(roles), [{ r: 2, c: 0, side: 'bottom' }], LINE);
		assert.deepEqual(above(insertRows(foot, 3, 1, 2)), ['foot']);
		assert.deepEqual(above(removeLines(foot, 'rows', new Set([2]))), ['foot']);
		const head = lined(begin(roles), [{ r: 0, c: 0, side: 'top' }], LINE);
		const added = insertRows(head, 0, 2, 0);
		assert.deepEqual(lineAt(added, { r: 0, c: 0, side: 'top' }), LINE);
		assert.equal(touchList(added).length, 1);
		const end = lined(begin(roles), [{ r: 1, c: 1, side: 'end' }], LINE);
		assert.deepEqual(lineAt(insertColumns(end, 2, 1), { r: 1, c: 2, side: 'end' }), LINE);
	});

	const edge = fc.record({ r: fc.nat(4), c: fc.nat(1), side: fc.constantFrom(...SIDES) });
	const step = fc.oneof(
		fc.record({ do: fc.constant('touch' as const), edge }),
		fc.record({ do: fc.constant('insert' as const), at: fc.nat(20) }),
		fc.record({ do: fc.constant('remove' as const), at: fc.nat(20) }),
		fc.record({ do: fc.constant('move' as const), at: fc.nat(20), to: fc.nat(20) }),
		fc.record({ do: fc.constant('sort' as const), order: fc.constantFrom('rising' as const, 'falling' as const) })
	);
	it('can all be seen and taken off, whatever was done', () => {
		fc.assert(
			fc.property(fc.array(step, { maxLength: 14 }), (steps) => {
				let work = begin();
				for (const one of steps) {
					const rows = work.rows.length;
					if (one.do === 'touch') work = lined(work, [{ ...one.edge, r: one.edge.r % rows }], LINE);
					else if (one.do === 'insert') work = insertRows(work, one.at % (rows + 1), 1);
					else if (one.do === 'remove' && rows > 1) work = removeLines(work, 'rows', new Set([one.at % rows]));
					else if (one.do === 'move') work = moveLines(work, 'rows', one.at % rows, 1, one.to % (rows + 1));
					else if (one.do === 'sort') work = sortRows(work, [{ column: 1, order: one.order }], 'en-GB');
				}
				const edges = touchList(work).map(({ r, c, side }) => ({ r, c, side: side! }));
				for (const { r, c, side } of edges) {
					assert.ok(lineAt(work, { r, c, side }), 'it is seen');
					const home = edgeHome(r, c, side);
					assert.deepEqual(lineAt(work, home), lineAt(work, { r, c, side }), 'from both sides alike');
				}
				assert.deepEqual(touchList(lined(work, edges, null)), []);
			}),
			{ numRuns: 300 }
		);
	});
	it('of ordinary rows go with them wherever they go', () => {
		const roles: RowRole[] = ['body', 'body', 'body', 'body'];
		const order = fc.shuffledSubarray([0, 1, 2, 3], { minLength: 4 });
		fc.assert(
			fc.property(fc.array(edge, { maxLength: 4 }), order, (edges, turned) => {
				const work = lined(
					begin(roles),
					edges.map((one) => ({ ...one, r: one.r % 4 })),
					LINE
				);
				const byRow = (table: WorkTable) =>
					new Set(touchList(table).map(({ r, c, side }) => `${table.rows[r]!.id} ${c} ${side}`));
				assert.deepEqual([...byRow(orderRows(work, turned))].sort(), [...byRow(work)].sort());
			})
		);
	});
});
