import type { Resolved } from '../core/cascade/resolve.ts';
import { behaviour } from '../core/roles/index.ts';
import { formatOf, formatValue } from '../core/values/format.ts';
import { dateOrderOf, usualOrder } from '../core/values/dates.ts';
import { markOfTable, parseValue, usualMark } from '../core/values/parse.ts';
import type { CellContent } from '../core/table/content.ts';

type Content = readonly (readonly CellContent[])[];

/** Content as formatted before, by what it rests on: styles change often without a change of formats. */
const known = new WeakMap<Content, { key: string; shown: Content }>();

/** The content of a table's cells as the style's figures and dates write it. The values stay as they were typed. */
export function shownContent({ structure, leaves }: Resolved, content: Content, locale: string): Content {
	const formats = leaves.map(formatOf);
	if (formats.every(({ kind }) => !kind || kind === 'none')) return content;
	const { table, cellSignature } = structure;
	const key = JSON.stringify([formats, structure.key, locale]);
	const before = known.get(content);
	if (before?.key === key) return before.shown;
	const mark = markOfTable(table, usualMark(locale));
	const { order } = dateOrderOf(
		table.cells.map(({ text }) => text),
		usualOrder(locale)
	);
	const shown = content.map((pieces, index) => {
		const [piece, ...others] = pieces;
		if (!piece || others.length || !('runs' in piece) || piece.runs.length !== 1) return pieces;
		const { r, c } = table.cells[index]!;
		if (!behaviour(table.roles[r]!).holdsFigures) return pieces;
		const format = formats[cellSignature[r * table.columns + c]!]!;
		const run = piece.runs[0]!;
		const text = formatValue(parseValue(run.text, mark, order), format, locale);
		return text === undefined ? pieces : [{ ...piece, runs: [{ ...run, text }] }];
	});
	known.set(content, { key, shown });
	return shown;
}
