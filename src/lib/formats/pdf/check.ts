import type { TableMarks } from '../../core/layout/marks.ts';
import type { Page, Report } from '../../core/layout/report.ts';
import type { LaidTable } from '../../core/layout/table.ts';
import type { Mark } from '../../core/layout/marks.ts';
import { plural } from '../../core/words.ts';

/** Text as it is compared: letters and signs, whatever stands between them and however they are composed. */
const bare = (text: string): string => text.normalize('NFKC').replace(/[\s\p{Cc}\p{Cf}]+/gu, '');

/** So many places are named. */
const MOST_NAMED = 3;

/** What is drawn on a page as text, where it can be seen. */
const seen = ({ width, height }: Page, marks: readonly Mark[]): string =>
	marks
		.flatMap((mark) =>
			mark.kind === 'text' && mark.x >= -1 && mark.x <= width + 1 && mark.y >= 0 && mark.y <= height + 1
				? [mark.piece.typed ?? mark.piece.text]
				: []
		)
		.join('');

/** The end of a text of which not all is drawn. */
function lackOf(wanted: string, drawn: string): string {
	let same = 0;
	while (same < wanted.length && wanted[same] === drawn[same]) same++;
	const rest = wanted.slice(same);
	return rest.length > 40 ? `${rest.slice(0, 40)}…` : rest;
}

/**
 * Counts the text of pages against what they were laid out from, in sentences about what is missing; none where all is there.
 */
export function missingText(report: Report, pages: readonly Page[]): string[] {
	const drawn = new Map<LaidTable, Map<number, string>>();
	const laidOf = new Map<number, LaidTable>();
	let beside = '';
	const take = (page: Page, { laid, cells }: TableMarks) => {
		let own = drawn.get(laid);
		if (!own) drawn.set(laid, (own = new Map()));
		for (const { cell, marks, tables } of cells) {
			own.set(cell, (own.get(cell) ?? '') + seen(page, marks));
			for (const inner of tables) take(page, inner);
		}
	};
	for (const page of pages)
		for (const piece of page.pieces)
			if (piece.kind === 'table') {
				laidOf.set(piece.table, piece.marks.laid);
				take(page, piece.marks);
			} else if (piece.kind === 'heading' || piece.kind === 'paragraph') beside += seen(page, piece.marks);

	const missing: string[] = [];
	const check = (laid: LaidTable, words: string) => {
		const { table, content } = laid.input;
		table.cells.forEach(({ r, c }, i) => {
			const wanted = bare(
				content[i]!.flatMap((piece) => ('runs' in piece ? piece.runs.map(({ text }) => text) : [])).join('')
			);
			const got = bare(drawn.get(laid)?.get(i) ?? '');
			const place = `${words}, row ${r + 1}, column ${c + 1}`;
			if (got !== wanted) missing.push(`${place}: “${lackOf(wanted, got)}”`);
			for (const { laid: inner } of laid.cells[i]!.tables) check(inner, `the table in ${place}`);
		});
	};
	let wanted = '';
	for (const block of report.blocks) {
		if (block.kind === 'heading' || block.kind === 'paragraph') wanted += bare(block.text);
		else if (block.kind === 'picture') continue;
		else if (report.tables.has(block.index)) {
			const laid = laidOf.get(block.index);
			if (laid) check(laid, `table ${block.index + 1}`);
			else missing.push(`table ${block.index + 1}: all of it`);
		}
	}
	if (bare(beside) !== wanted) missing.push(`text beside the tables: “${lackOf(wanted, bare(beside))}”`);
	if (!missing.length) return [];
	const more = missing.length - MOST_NAMED;
	return [
		`Not all text is on the pages. Missing: ${missing.slice(0, MOST_NAMED).join('; ')}${more > 0 ? `; and at ${plural(more, 'more place')}` : ''}.`
	];
}
