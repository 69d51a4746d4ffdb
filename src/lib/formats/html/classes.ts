import { cssName } from '../../core/share/css.ts';
import { behaviour, splitRole } from '../../core/roles/index.ts';
import type { Prepared } from '../job.ts';

/** CSS that stands in any encoding, and cannot end its element. */
export const asciiCss = (css: string) =>
	// eslint-disable-next-line no-control-regex
	css.replace(/[^\u0000-\u007f]|<(?=\/)/gu, (char) => `\\${char.codePointAt(0)!.toString(16)} `);

/** The classes of a row and of its cells, from the parts that rule them. */
export function classesOf({ resolved }: Prepared) {
	const { structure, style } = resolved;
	const { table } = structure;
	const rows = table.roles.map((role): Set<string> => {
		const { family, level, role: own } = splitRole(role);
		return new Set(own.levels ? [family, `${family}-${level}`] : [family]);
	});
	const off = new Set(table.partsOff);
	const cells = table.cells.map(({ r, c }) => {
		const names: string[] = [];
		for (const { name } of structure.signatures[structure.cellSignature[r * table.columns + c]!]!.parts) {
			const [family, number] = name.split(':') as [string, string | undefined];
			if (family === 'rowBand') rows[r]!.add(`band-${number}`);
			else if (family === 'columnBand') names.push(`stripe-${number}`);
			else if (family === 'firstColumn') names.push('first');
			else if (family === 'lastColumn') names.push('last');
			else if (name.startsWith('columns:"')) names.push(`column-${cssName(name.slice(9, -1))}`);
			else if (family === 'columns') names.push(`kind-${number}`);
			else if (family === 'rule') names.push(`rule-${cssName(name.slice(5))}`);
		}
		return names;
	});
	// A part that this table does not use leaves no class for its rule to find.
	for (const classes of rows)
		for (const name of [...classes])
			if (name !== 'body' && off.has(name.replace(/-(\d+)$/, ':$1'))) classes.delete(name);
	return { rows, cells, className: cssName(style.name) };
}

/** What a header cell is the header of (HTML Standard, `scope`); undefined for a cell that is none. */
export function scopeOf({ job }: Prepared, r: number, c: number): 'col' | 'row' | undefined {
	const role = behaviour(job.table.roles[r]!);
	if (role.isHeader) return 'col';
	return c < job.table.firstColumns && role.inColumns ? 'row' : undefined;
}
