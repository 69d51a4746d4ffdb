import { lowContrast } from '../core/cascade/contrast.ts';
import { isBody, isHeader } from '../core/roles/index.ts';
import { NUMERIC_KINDS } from '../core/table/columns.ts';
import type { DocumentTable } from '../formats/document.ts';

export interface TableFinding {
	readonly kind: 'total-off' | 'contrast' | 'no-header' | 'not-aligned';
	readonly words: string;
}

/** What a person should look at in a table: sums, contrast, a missing header, figures that do not line up. */
export function tableFindings({ table, appearance, recognition }: DocumentTable): TableFinding[] {
	const found: TableFinding[] = recognition.findings.map(({ r, c, words }) => ({
		kind: 'total-off',
		words: `row ${r}, column ${c}: ${words}`
	}));
	for (const { cell, cells, ratio, wanted } of lowContrast(table.cells, appearance)) {
		const { r, c, text } = table.cells[cell]!;
		found.push({
			kind: 'contrast',
			words: `row ${r}, column ${c}, “${text.trim().slice(0, 24)}”: contrast ${ratio.toFixed(1)}:1, and ${wanted}:1 is needed${cells > 1 ? `; so have ${cells - 1} more` : ''}`
		});
	}
	if (table.rows > 2 && !table.roles.some((role) => isHeader(role)))
		found.push({ kind: 'no-header', words: 'no row is recognised as a header' });
	table.columnInfo.forEach(({ kind, name }, c) => {
		if (!NUMERIC_KINDS.has(kind)) return;
		const cells = table.cells.flatMap((cell, i) =>
			cell.c === c && cell.cols === 1 && isBody(table.roles[cell.r]!) && cell.text.trim() ? [i] : []
		);
		const askew = cells.filter((i) => {
			const { h } = appearance.looks[appearance.cellLook[i]!]!;
			return h !== undefined && h !== 'end' && h !== 'decimal';
		});
		if (askew.length)
			found.push({
				kind: 'not-aligned',
				words: `column ${c}${name ? ` “${name}”` : ''}: ${askew.length} of ${cells.length} figures do not stand at the end`
			});
	});
	return found;
}
