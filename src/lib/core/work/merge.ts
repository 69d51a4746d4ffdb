import { mergedLeaves, same } from '../merge.ts';
import { workFault, type WorkRow, type WorkTable } from './table.ts';
import { isWorkedOut, workedOut } from './working.ts';

/** A cell that two people changed, and not to the same. */
export interface CellClash {
	/** In what stands. */
	readonly r: number;
	readonly c: number;
	readonly mine: string;
	readonly theirs: string;
}

export interface MergedWork {
	/** Both changes; theirs where they clash. */
	readonly merged: WorkTable;
	/** The same with one's own where they clash. */
	readonly mine: WorkTable;
	readonly clashes: readonly CellClash[];
}

const restOf = ({ rows: _, nextId: _next, ...rest }: WorkTable) => rest;
const order = ({ rows }: WorkTable) => rows.map(({ id }) => id);

/**
 * Two changes of one table laid over each other, cell by cell. Undefined where that cannot be: both put rows or columns in other
 * places, or say different things of the table as a whole.
 */
export function mergedWork(base: WorkTable, mine: WorkTable, theirs: WorkTable): MergedWork | undefined {
	const [was, own, other] = [order(base), order(mine), order(theirs)];
	const [isMoved, isMovedThere] = [!same(was, own), !same(was, other)];
	if (isMoved && isMovedThere && !same(own, other)) return undefined;
	const rest = mergedLeaves(restOf(base), restOf(mine), restOf(theirs));
	if (rest.clashes.length) return undefined;
	// Rows that both made are two rows, though they may be numbered alike.
	if (isMoved && isMovedThere) return undefined;
	const columns = base.columns.length;
	if (mine.columns.length !== columns && theirs.columns.length !== columns) return undefined;
	const [before, here, there] = [base, mine, theirs].map(({ rows }) => new Map(rows.map((row) => [row.id, row]))) as [
		Map<number, WorkRow>,
		Map<number, WorkRow>,
		Map<number, WorkRow>
	];
	// A row that one took out, and in which the other changed something.
	const left = new Set(isMoved ? own : other);
	const changed = isMoved ? there : here;
	if (was.some((id) => !left.has(id) && changed.get(id) !== before.get(id))) return undefined;
	const clashes: CellClash[] = [];
	const mergedRows: WorkRow[] = [];
	const myRows: WorkRow[] = [];
	for (const id of isMoved ? own : other) {
		const [a, b, c] = [before.get(id), here.get(id), there.get(id)];
		if (!a || a === b || a === c || !b || !c) {
			const row = (a === b ? c : b) ?? c ?? b!;
			mergedRows.push(row);
			myRows.push(row);
			continue;
		}
		// One of the two changed how many columns there are: rows of the other cannot be laid over it.
		if (b.cells.length !== c.cells.length || a.cells.length !== b.cells.length) return undefined;
		const row = mergedLeaves(
			{ ...a, cells: { ...a.cells } },
			{ ...b, cells: { ...b.cells } },
			{ ...c, cells: { ...c.cells } }
		);
		const cellsOf = ({ cells, ...others }: typeof row.merged): WorkRow => ({
			...others,
			cells: Object.values(cells as WorkRow['cells'])
		});
		const changed = new Set(row.clashes.flatMap(({ path }) => (path[0] === 'cells' ? [Number(path[1])] : [])));
		// What is worked out is worked out anew from what both changed.
		const [mineAt, theirsAt] = [own.indexOf(id), other.indexOf(id)];
		const places = new Set(
			[...changed].filter((at) => !isWorkedOut(mine, mineAt, at) || !isWorkedOut(theirs, theirsAt, at))
		);
		if (row.clashes.some(({ path }) => path[0] !== 'cells')) return undefined;
		const text = (from: WorkRow, at: number) => {
			const slot = from.cells[at]!;
			return 'text' in slot ? slot.text : '';
		};
		const r = mergedRows.length;
		for (const at of places) clashes.push({ r, c: at, mine: text(b, at), theirs: text(c, at) });
		// A cell in which something clashes is as one of the two made it, whole.
		const whole = (made: WorkRow, from: WorkRow): WorkRow => ({
			...made,
			cells: made.cells.map((slot, at) => (changed.has(at) ? from.cells[at]! : slot))
		});
		mergedRows.push(whole(cellsOf(row.merged), c));
		myRows.push(whole(cellsOf(row.mine), b));
	}
	const nextId = Math.max(mine.nextId, theirs.nextId);
	const made = (rows: readonly WorkRow[]): WorkTable => ({ ...rest.merged, rows, nextId });
	const [merged, kept] = [made(mergedRows), made(myRows)];
	// A joined cell of one may lie where the other has a cell of its own.
	if (workFault(merged) ?? workFault(kept)) return undefined;
	return { merged: workedOut(merged).work, mine: workedOut(kept).work, clashes };
}
