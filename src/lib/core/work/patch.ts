import { InputError } from '../errors.ts';
import { checkSize, workFault, type WorkRow, type WorkTable } from './table.ts';

/** Row ids in their order, as stretches of ids that follow each other: first id and how many. */
type Stretches = readonly (readonly [first: number, count: number])[];

/** What turns one table into another; rows that stay are not named. */
export interface Patch {
	/** Where rows came, went or moved: all ids in their new order. */
	readonly order?: Stretches;
	/** Rows that are new or say something else. */
	readonly rows?: readonly WorkRow[];
	/** Everything but rows, where it changed. */
	readonly rest?: Omit<WorkTable, 'rows'>;
}

const restOf = ({ rows: _, ...rest }: WorkTable) => rest;

/** The patch from one table to another. */
export function patchBetween(before: WorkTable, after: WorkTable): Patch {
	const known = new Map(before.rows.map((row) => [row.id, row]));
	const changed = after.rows.filter((row) => known.get(row.id) !== row);
	const isOrdered =
		before.rows.length === after.rows.length && after.rows.every(({ id }, r) => before.rows[r]!.id === id);
	const stretches: [number, number][] = [];
	if (!isOrdered)
		for (const { id } of after.rows) {
			const last = stretches.at(-1);
			if (last && last[0] + last[1] === id) last[1]++;
			else stretches.push([id, 1]);
		}
	const isSame = JSON.stringify(restOf(before)) === JSON.stringify(restOf(after));
	return {
		...(!isOrdered && { order: stretches }),
		...(changed.length && { rows: changed }),
		...(!isSame && { rest: restOf(after) })
	};
}

/** A table with a patch applied. Throws InputError where the two do not fit, or what comes out is no table. */
export function applyPatch(work: WorkTable, { order, rows, rest }: Patch): WorkTable {
	const put = new Map((rows ?? []).map((row) => [row.id, row]));
	const known = new Map(order && work.rows.map((row) => [row.id, row]));
	const next = order
		? order.flatMap(([first, count]) =>
				Array.from({ length: count }, (_, i) => {
					const row = put.get(first + i) ?? known.get(first + i);
					if (!row)
						throw new InputError('patch', `The change names a row (${first + i}) that the table does not have.`);
					return row;
				})
			)
		: work.rows.map((row) => put.get(row.id) ?? row);
	const result: WorkTable = { ...(rest ?? work), rows: next };
	checkSize(result.rows.length, result.columns.length);
	const fault = workFault(result);
	if (fault) throw new InputError('patch', `The change would leave no whole table: ${fault}.`);
	return result;
}
