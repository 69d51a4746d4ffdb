import type { Side } from '../table/grid.ts';
import type { Decided, EdgeResult, Resolved } from './resolve.ts';

export interface ResolvedList {
	cells: { r: number; c: number; leaves: Record<string, Decided> }[];
	edges: ({ r: number; c: number; side: Side } & EdgeResult)[];
}

/** What `resolve` prints (formats.md, "Table files"): one entry per cell and one per unit edge, in reading order. */
export function listResolved(resolved: Resolved): ResolvedList {
	const { structure, leaves, edges } = resolved;
	const { rows, columns, cells } = structure.table;
	const out: ResolvedList = { cells: [], edges: [] };
	for (const { r, c } of cells)
		out.cells.push({ r, c, leaves: Object.fromEntries(leaves[structure.cellSignature[r * columns + c]!]!) });
	const add = (r: number, c: number, side: ResolvedList['edges'][number]['side'], signature: number) => {
		if (signature >= 0) out.edges.push({ r, c, side, ...edges[signature]! });
	};
	for (let r = 0; r < rows; r++)
		for (let c = 0; c < columns; c++) {
			if (r === 0) add(r, c, 'top', structure.across[c]!);
			if (c === 0) add(r, c, 'start', structure.down[r * (columns + 1)]!);
			add(r, c, 'bottom', structure.across[(r + 1) * columns + c]!);
			add(r, c, 'end', structure.down[r * (columns + 1) + c + 1]!);
		}
	return out;
}
