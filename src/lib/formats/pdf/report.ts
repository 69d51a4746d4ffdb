import type { Appearance } from '../../core/cascade/look.ts';
import { SHIPPED } from '../../core/layout/fonts.ts';
import { rowKeeps } from '../../core/layout/pages.ts';
import type { Paper } from '../../core/layout/paper.ts';
import type { Report, ReportTable } from '../../core/layout/report.ts';
import type { TableInput } from '../../core/layout/table.ts';
import { withoutEmphasis } from '../../core/table/content.ts';
import { textAt } from '../../core/table/grid.ts';
import type { Emu } from '../../core/units.ts';
import type { Prepared } from '../job.ts';
import type { DocumentTable, WholeDocument } from '../document.ts';
import { printed } from './printed.ts';

export const USUAL_PAPER: Paper = { name: 'A4', across: false };

/** What a table is called in a list of tables: its caption, its title row, or the heading that it stands under. */
export function tableLabel({ index, place, table }: DocumentTable): string {
	if (place.caption) return place.caption;
	const title = table.roles[0] === 'title' ? textAt(table, 0, 0).trim() : '';
	const said = title || (place.heading ? `under “${place.heading}”` : '');
	return `Table ${index + 1}${said ? `: ${said}` : ''}`;
}

/**
 * A document as a report: its headings, text and tables, those of `prepared` in their styles and the others as they look
 * in their file.
 */
export function reportOf(
	document: WholeDocument,
	prepared: readonly Prepared[],
	{ title, paper = USUAL_PAPER }: { readonly title: string; readonly paper?: Paper | undefined }
): Report {
	const styled = new Map(prepared.map((one) => [one.job.index, one]));
	const appearanceOf = (entry: DocumentTable): Appearance => styled.get(entry.index)?.wanted ?? entry.appearance;
	const { blocks, content } = printed(document);
	const inputOf = (entry: DocumentTable): TableInput => ({
		table: styled.get(entry.index)?.job.table ?? entry.table,
		appearance: appearanceOf(entry),
		content: content(styled.get(entry.index)?.job.dropsEmphasis ? withoutEmphasis(entry.content) : entry.content),
		leastHeights: leastHeights(entry),
		widths: widthsOf(styled.get(entry.index)?.job.widths ?? entry.widths),
		nested: (index) => {
			const inner = document.tables[index];
			return inner && inputOf(inner);
		}
	});
	const tables = new Map<number, ReportTable>();
	for (const entry of document.tables) {
		if (entry.place.where === 'nested') continue;
		const one = styled.get(entry.index);
		const input = inputOf(entry);
		tables.set(entry.index, { label: tableLabel(entry), input, keeps: rowKeeps(input.table.roles, one?.resolved) });
	}
	// The title stands at the head of the report already.
	const [first, ...rest] = blocks;
	const isSaid = first?.kind === 'heading' && first.text.trim() === title.trim();
	return { title, paper, tables, blocks: isSaid ? rest : blocks, language: document.language };
}

/** Heights that rows have by themselves, said on the bench or in the file. */
const leastHeights = ({ table, work, rowFacts }: DocumentTable) =>
	table.roles.map((_, r) => work?.rows[r]?.height ?? rowFacts?.[r]?.height);

/** Widths as the file has them; a column that it gives none is fitted. */
const widthsOf = (widths: readonly Emu[]) =>
	widths.map((width) => (width > 0 ? { fixed: width } : ('fitted' as const)));

/** Families of the tables that do not ship, and so are shown in the nearest one that does. */
export function replacedFamilies(tables: Iterable<ReportTable>): string[] {
	const shipped = new Set<string>(SHIPPED.map((family) => family.toLowerCase()));
	const replaced = new Set<string>();
	for (const { input } of tables)
		for (const { family } of input.appearance.looks)
			if (family && !shipped.has(family.toLowerCase())) replaced.add(family);
	return [...replaced].sort();
}
