import { Interned, type Appearance, type Line, type Look } from '../../core/cascade/look.ts';
import { sameShown } from '../../core/properties/shadow.ts';
import { emu, type Emu } from '../../core/units.ts';
import type { XmlNode } from '../package/xml.ts';
import { readLook } from '../sayable.ts';
import { mirrored } from '../sides.ts';
import { tableIsRight } from './direction.ts';
import type { OdtGrid } from './grid.ts';
import { ODT_CELL_FIELDS, ODT_TEXT_FIELDS, type TextField } from './properties/index.ts';
import { readLine } from './properties/lines.ts';
import { readShadow, TABLE_SHADOW_ATTRIBUTE } from './properties/shadow.ts';
import { PARAGRAPH_FILL, TEXT_FILL, type OdfStyles, type Properties } from './styles.ts';
import type { TextParagraph } from './text.ts';

const DEFAULT_SIZE = emu(12 * 12_700);

export type TextLook = Partial<Pick<Look, TextField>>;

/** How text shows (ODF 1.3 Part 3 §20). `inherited` is what a percentage is of. */
export const textLook = (
	properties: Properties,
	styles: OdfStyles,
	inherited = DEFAULT_SIZE
): TextLook & { size: Emu } =>
	readLook((field) => ODT_TEXT_FIELDS[field as TextField]?.readText({ properties, styles, inherited })) as TextLook & {
		size: Emu;
	};

/** Properties of a run: its paragraph's style with the styles of the spans around it laid over. */
export function runProperties(
	paragraph: TextParagraph,
	run: TextParagraph['runs'][number],
	styles: OdfStyles,
	cellStyle: string | undefined
): Properties {
	const own = styles.inCell(paragraph.node.attribute('text:style-name'), cellStyle);
	if (run.spans.length === 0) return own;
	return new Map([
		...own,
		...run.spans.flatMap((span) => [...styles.properties('text', span.attribute('text:style-name'))])
	]);
}

/** What all text of a cell has in common; where runs differ, what their first paragraph says. */
function cellText(paragraphs: readonly TextParagraph[], styles: OdfStyles, cellStyle: string | undefined): TextLook {
	const first = paragraphs.find(({ runs }) => runs.length) ?? paragraphs[0];
	const base = textLook(
		first ? styles.inCell(first.node.attribute('text:style-name'), cellStyle) : new Map<string, string>(),
		styles
	);
	const runs = paragraphs.flatMap((one) =>
		one.runs
			.filter(({ text }) => text.trim())
			.map((run) => textLook(runProperties(one, run, styles, cellStyle), styles, base.size))
	);
	if (!runs.length) return base;
	const out: Record<string, unknown> = { ...base };
	for (const field of Object.keys({ ...base, ...runs[0] }) as (keyof TextLook)[])
		if (runs.every((run) => sameShown(run[field], runs[0]![field]))) out[field] = runs[0]![field];
	return out as TextLook;
}

const SIDES = { top: 'top', end: 'right', bottom: 'bottom', start: 'left' } as const;
/** The same in a table that starts at the right. */
const RIGHT_SIDES = { top: 'top', end: 'left', bottom: 'bottom', start: 'right' } as const;

const hasTable = (node: XmlNode): boolean =>
	node.children.some((child) => child.name === 'table:table' || hasTable(child));

/** What shows behind all text of a cell, where it is something else than the cell's own fill: of its letters, else of its paragraphs. */
function behindText(
	paragraphs: readonly TextParagraph[],
	ofParagraph: (paragraph: TextParagraph) => Properties,
	styles: OdfStyles,
	cellStyle: string | undefined
): string | undefined {
	const filled = paragraphs.filter(({ runs }) => runs.some(({ text }) => text.trim()));
	const seen = new Set(
		filled.flatMap((one) =>
			one.runs
				.filter(({ text }) => text.trim())
				.map((run) => {
					const behind = runProperties(one, run, styles, cellStyle).get(TEXT_FILL);
					return behind && behind !== 'transparent' ? behind : ofParagraph(one).get(PARAGRAPH_FILL);
				})
		)
	);
	return seen.size === 1 ? [...seen][0] : undefined;
}

interface CellFacts {
	readonly look: Look;
	readonly lines: Readonly<Record<keyof typeof SIDES, Line | null>>;
}

const NO_PROPERTIES: Properties = new Map();
const NOTHING: CellFacts = { look: {}, lines: { top: null, end: null, bottom: null, start: null } };

/** How a table shows in a text document. */
export function documentAppearance(
	{ node, grid, rows, cells, cellStyles }: OdtGrid,
	paragraphs: (cell: OdtGrid['cells'][number] & object) => readonly TextParagraph[],
	styles: OdfStyles
): Appearance {
	const table = styles.properties('table', node.attribute('table:style-name'));
	const isRight = tableIsRight(table);
	const facts = cells.map((cell, i): CellFacts => {
		if (!cell) return NOTHING;
		const cellStyle = cellStyles[i];
		const own = styles.properties('table-cell', cellStyle);
		const row = styles.properties('table-row', rows[grid.cells[i]!.r]!.node.attribute('table:style-name'));
		const texts = paragraphs(cell);
		const first = texts.find(({ runs }) => runs.length) ?? texts[0];
		const ofParagraph = ({ node: at }: TextParagraph) => styles.inCell(at.attribute('text:style-name'), cellStyle);
		const context = {
			table,
			row,
			cell: own,
			paragraph: first ? ofParagraph(first) : NO_PROPERTIES,
			paragraphs: texts.slice(0, 2).map(ofParagraph),
			behind: behindText(texts, ofParagraph, styles, cellStyle),
			isRight
		};
		// Text and alignment of a cell that holds nothing but other tables are those of nothing.
		const hasText = texts.length > 0 || !hasTable(cell);
		const ofText: TextLook = hasText ? cellText(texts, styles, cellStyle) : {};
		const look = readLook((field) =>
			field in ODT_TEXT_FIELDS
				? ofText[field as TextField]
				: hasText || ODT_CELL_FIELDS[field as keyof typeof ODT_CELL_FIELDS].element === 'table-cell'
					? ODT_CELL_FIELDS[field as keyof typeof ODT_CELL_FIELDS].read(context)
					: undefined
		);
		return {
			look: isRight ? mirrored(look) : look,
			lines: Object.fromEntries(
				Object.entries(isRight ? RIGHT_SIDES : SIDES).map(([side, name]) => [
					side,
					readLine(own.get(`fo:border-${name}`))
				])
			) as CellFacts['lines']
		};
	});
	const shadow = readShadow(table.get(TABLE_SHADOW_ATTRIBUTE));
	const looks = new Interned<Look>();
	const lines = new Interned<Line | null>();
	const at = (r: number, c: number) =>
		r < 0 || c < 0 || r >= grid.rows || c >= grid.columns ? -1 : grid.slots[r * grid.columns + c]!;
	const shown = (a: Line | null | undefined, b: Line | null | undefined) =>
		lines.add(a && b ? (b.weight > a.weight ? b : a) : (a ?? b ?? null));
	const across = new Int32Array((grid.rows + 1) * grid.columns).fill(-1);
	for (let r = 0; r <= grid.rows; r++)
		for (let c = 0; c < grid.columns; c++) {
			const [above, below] = [at(r - 1, c), at(r, c)];
			if (above !== below) across[r * grid.columns + c] = shown(facts[above]?.lines.bottom, facts[below]?.lines.top);
		}
	const down = new Int32Array(grid.rows * (grid.columns + 1)).fill(-1);
	for (let r = 0; r < grid.rows; r++)
		for (let c = 0; c <= grid.columns; c++) {
			const [before, after] = [at(r, c - 1), at(r, c)];
			if (before !== after)
				down[r * (grid.columns + 1) + c] = shown(facts[before]?.lines.end, facts[after]?.lines.start);
		}
	return {
		cellLook: Int32Array.from(facts, ({ look }) => looks.add(look)),
		looks: looks.items,
		across,
		down,
		lines: lines.items,
		...(shadow && { shadow })
	};
}
