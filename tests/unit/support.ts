import type { House } from '../../src/lib/core/house.ts';
import { listResolved, type ResolvedList } from '../../src/lib/core/cascade/answer.ts';
import { resolve } from '../../src/lib/core/cascade/resolve.ts';
import { flatten } from '../../src/lib/core/style/inherit.ts';
import { checkStyle } from '../../src/lib/core/style/validate.ts';
import type { PartSettings, Style } from '../../src/lib/core/style/types.ts';
import { tableFromFile, type TableFile } from '../../src/lib/core/table/file.ts';
import type { Table } from '../../src/lib/core/table/grid.ts';
import type { RowRole } from '../../src/lib/core/roles/index.ts';

/** A style with these parts; validated, so that a test cannot lean on what no file could say. */
export const style = (parts: Record<string, PartSettings>, rest: Partial<Style> = {}): Style =>
	checkStyle({ format: 'heptarch-style', version: 1, name: 'Test', parts, ...rest });

/** A table of `roles.length` rows whose cells are named by their place. */
export function table(roles: RowRole[], columns: number, rest: Partial<TableFile> = {}): Table {
	return tableFromFile({
		format: 'heptarch-table',
		version: 1,
		cells: roles.map((_, r) => Array.from({ length: columns }, (_, c) => `r${r}c${c}`)),
		rows: roles,
		columns: Array.from({ length: columns }, (_, c) => ({ kind: 'text', name: `c${c}` })),
		firstColumns: 0,
		lastColumns: 0,
		...rest
	});
}

const INKS: House = { inks: { black: '#000000', grey: '#808080', red: '#C00000', teal: '#1F6F66' }, typeRoles: {} };

export class Shown {
	readonly answer: ResolvedList;
	constructor(table: Table, parts: Record<string, PartSettings> | Style, rest: Partial<Style> = {}) {
		const checked =
			'format' in parts && parts.format === 'heptarch-style'
				? (parts as Style)
				: style(parts as Record<string, PartSettings>, rest);
		this.answer = listResolved(resolve(table, flatten(checked), INKS));
	}
	/** The winning leaf of a cell, as "value@part". */
	leaf(r: number, c: number, path: string): string | undefined {
		const found = this.answer.cells.find((cell) => cell.r === r && cell.c === c)?.leaves[path];
		return found && `${found.value}@${found.part}`;
	}
	/** An edge, as "pattern weight ink@part". `null` where nobody claims; undefined where there is no edge. */
	edge(r: number, c: number, side: 'top' | 'bottom' | 'start' | 'end'): string | null | undefined {
		const found = this.answer.edges.find((edge) => edge.r === r && edge.c === c && edge.side === side);
		if (!found) return undefined;
		if (!found.line) return null;
		const { pattern, weight, ink } = found.line;
		return `${[pattern, weight, ink].filter((word) => word !== undefined).join(' ')}@${found.part}`;
	}
}

export const line = (
	pattern: NonNullable<NonNullable<PartSettings['lines']>['top']>['pattern'],
	weight?: string,
	ink?: string
) => ({
	pattern,
	...(weight && { weight }),
	...(ink && { ink })
});
