import { toHex, type Hex } from '../../core/colour.ts';
import { Interned, type Appearance, type Line, type Look } from '../../core/cascade/look.ts';
import type { LinePattern } from '../../core/style/types.ts';
import { emu, type Emu } from '../../core/units.ts';
import type { OdtGrid } from './grid.ts';
import type { OdfStyles, Properties } from './styles.ts';
import type { TextParagraph } from './text.ts';

const UNITS: Record<string, number> = { cm: 360_000, mm: 36_000, in: 914_400, pt: 12_700, pc: 152_400, px: 9_525 };

/** An ODF length in EMU; percent is of `whole`. */
export function toEmu(value: string | undefined, whole?: number): Emu | undefined {
	const match = /^([+-]?(?:\d+\.?\d*|\.\d+))(cm|mm|in|pt|pc|px|%)$/.exec(value?.trim() ?? '');
	if (!match) return undefined;
	const number = Number(match[1]);
	if (match[2] === '%') return whole === undefined ? undefined : emu(Math.round((number / 100) * whole));
	return emu(Math.round(number * UNITS[match[2]!]!));
}

const colour = (value: string | undefined): Hex | 'none' | undefined =>
	value === undefined ? undefined : value === 'transparent' ? 'none' : toHex(value);

const DEFAULT_SIZE = emu(12 * 12_700);
const CASES: Record<string, Look['case']> = { uppercase: 'upper', lowercase: 'lower', capitalize: 'title' };
const H: Record<string, Look['h']> = {
	start: 'start',
	left: 'start',
	center: 'middle',
	end: 'end',
	right: 'end',
	justify: 'justify'
};

export type TextLook = Pick<Look, 'family' | 'size' | 'weight' | 'italic' | 'underline' | 'case' | 'tracking' | 'ink'>;

/** How text shows (ODF 1.3 Part 3 §20). `inherited` is what a percentage is of. */
export function textLook(properties: Properties, styles: OdfStyles, inherited = DEFAULT_SIZE): TextLook {
	const family = styles.fontFamily(properties);
	const weight = properties.get('fo:font-weight');
	const underline = properties.get('style:text-underline-style');
	const tracking = properties.get('fo:letter-spacing');
	const ink = properties.get('style:use-window-font-color') === 'true' ? undefined : colour(properties.get('fo:color'));
	return {
		...(family && { family }),
		size: toEmu(properties.get('fo:font-size'), inherited) ?? inherited,
		weight: weight === 'bold' ? 700 : Number(weight) || 400,
		italic: /italic|oblique/.test(properties.get('fo:font-style') ?? ''),
		underline:
			underline === undefined || underline === 'none'
				? 'none'
				: properties.get('style:text-underline-type') === 'double'
					? 'double'
					: 'single',
		case:
			properties.get('fo:font-variant') === 'small-caps'
				? 'small-caps'
				: (CASES[properties.get('fo:text-transform') ?? ''] ?? 'none'),
		tracking: (tracking === 'normal' ? undefined : toEmu(tracking)) ?? emu(0),
		ink: ink === undefined || ink === 'none' ? '#000000' : ink
	};
}

/** Properties of a run: its paragraph's style with the styles of the spans around it laid over. */
export function runProperties(
	paragraph: TextParagraph,
	run: TextParagraph['runs'][number],
	styles: OdfStyles
): Properties {
	const own = styles.properties('paragraph', paragraph.node.attribute('text:style-name'));
	if (run.spans.length === 0) return own;
	return new Map([
		...own,
		...run.spans.flatMap((span) => [...styles.properties('text', span.attribute('text:style-name'))])
	]);
}

/** What all text of a cell has in common; where runs differ, what their first paragraph says. */
function cellText(paragraphs: readonly TextParagraph[], styles: OdfStyles): TextLook {
	const first = paragraphs.find(({ runs }) => runs.length) ?? paragraphs[0];
	const base = textLook(
		first ? styles.properties('paragraph', first.node.attribute('text:style-name')) : new Map<string, string>(),
		styles
	);
	const runs = paragraphs.flatMap((one) =>
		one.runs
			.filter(({ text }) => text.trim())
			.map((run) => textLook(runProperties(one, run, styles), styles, base.size))
	);
	if (!runs.length) return base;
	const out: Record<string, unknown> = { ...base };
	for (const field of Object.keys({ ...base, ...runs[0] }) as (keyof TextLook)[])
		if (runs.every((run) => run[field] === runs[0]![field])) out[field] = runs[0]![field];
	return out as TextLook;
}

function lineHeight(properties: Properties): number | undefined {
	const percent = /^([\d.]+)%$/.exec(properties.get('fo:line-height') ?? '')?.[1];
	return percent === undefined ? undefined : Number(percent) / 100;
}

const PATTERNS: Record<string, LinePattern> = {
	solid: 'solid',
	dotted: 'dotted',
	dashed: 'dashed',
	'fine-dashed': 'dashed',
	double: 'double',
	'double-thin': 'double',
	'dash-dot': 'dash-dot',
	'dash-dot-dot': 'dash-dot'
};

export function readLine(value: string | undefined): Line | null {
	if (!value || /^(none|hidden)\b/.test(value)) return null;
	let [weight, pattern, ink]: [Emu | undefined, LinePattern, Hex] = [undefined, 'solid', '#000000'];
	for (const word of value.trim().split(/\s+/)) {
		const length = word === 'thin' ? emu(9_525) : word === 'thick' ? emu(25_400) : toEmu(word);
		if (length !== undefined) weight = length;
		else if (word.startsWith('#')) ink = toHex(word) ?? ink;
		else if (word === 'none' || word === 'hidden') return null;
		else pattern = PATTERNS[word] ?? 'solid';
	}
	return weight === 0 ? null : { pattern, weight: weight ?? emu(6_350), ink };
}

const SIDES = { top: 'top', end: 'right', bottom: 'bottom', start: 'left' } as const;

interface CellFacts {
	readonly look: Look;
	readonly lines: Readonly<Record<keyof typeof SIDES, Line | null>>;
}

const NOTHING: CellFacts = { look: {}, lines: { top: null, end: null, bottom: null, start: null } };

/** How a table shows in a text document. */
export function documentAppearance(
	{ node, grid, rows, cells }: OdtGrid,
	paragraphs: (cell: OdtGrid['cells'][number] & object) => readonly TextParagraph[],
	styles: OdfStyles
): Appearance {
	const table = styles.properties('table', node.attribute('table:style-name'));
	const facts = cells.map((cell, i): CellFacts => {
		if (!cell) return NOTHING;
		const own = styles.properties('table-cell', cell.attribute('table:style-name'));
		const row = styles.properties('table-row', rows[grid.cells[i]!.r]!.node.attribute('table:style-name'));
		const texts = paragraphs(cell);
		const first = texts.find(({ runs }) => runs.length) ?? texts[0];
		const paragraph = first
			? styles.properties('paragraph', first.node.attribute('text:style-name'))
			: new Map<string, string>();
		const fills = [own, row, table].map((from) => colour(from.get('fo:background-color')));
		const height = lineHeight(paragraph);
		const angle = Number(own.get('style:rotation-angle') ?? 0);
		const vertical = own.get('style:vertical-align');
		const padding = (side: string) => toEmu(own.get(`fo:padding-${side}`)) ?? emu(0);
		const [down, up] = [readLine(own.get('style:diagonal-tl-br')), readLine(own.get('style:diagonal-bl-tr'))];
		return {
			look: {
				fill: fills.find((fill) => fill !== undefined && fill !== 'none') ?? 'none',
				...cellText(texts, styles),
				...(height !== undefined && { lineHeight: height }),
				h: H[paragraph.get('fo:text-align') ?? 'start'] ?? 'start',
				v: vertical === 'middle' || vertical === 'bottom' ? vertical : 'top',
				rotate: angle === 270 || own.get('style:writing-mode') === 'tb-rl' ? 90 : angle === 90 ? 270 : 0,
				marginTop: padding('top'),
				marginEnd: padding('right'),
				marginBottom: padding('bottom'),
				marginStart: padding('left'),
				...(down && { diagonalDown: down }),
				...(up && { diagonalUp: up })
			},
			lines: Object.fromEntries(
				Object.entries(SIDES).map(([side, name]) => [side, readLine(own.get(`fo:border-${name}`))])
			) as CellFacts['lines']
		};
	});
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
		lines: lines.items
	};
}
