import type { Look } from '../cascade/look.ts';
import { runsOf, type Block, type CellPicture, type RunView } from '../table/content.ts';
import { emu, parseLength, type Emu } from '../units.ts';
import { PAPERS, type Paper } from './paper.ts';
import { ordered } from './bidi.ts';
import { baseOf } from './direction.ts';
import type { Faces } from './faces.ts';
import { headOf, innerHeads, marksOf, type Mark, type TableMarks } from './marks.ts';
import { cutTable, repeatedRows, rowKeeps, type RowKeep } from './pages.ts';
import { fillLines, measureParagraph } from './paragraph.ts';
import { baselineIn, layTable, tableWidth, type TableInput } from './table.ts';
import { lineHeightOf, piecesOf } from './text.ts';

/** A table of a report: what it is called, what its layout rests on, and what its rows do at the foot of a page. */
export interface ReportTable {
	readonly label: string;
	readonly input: TableInput;
	readonly keeps: readonly RowKeep[];
}

export interface Report {
	readonly title: string;
	/** As BCP 47 writes it. */
	readonly language?: string | undefined;
	readonly blocks: readonly Block[];
	/** By the index that the blocks name. */
	readonly tables: ReadonlyMap<number, ReportTable>;
	readonly paper: Paper;
}

/** What stands on a page, in reading order. What is an artifact says nothing to who has it read out. */
export type Piece =
	| { readonly kind: 'title' | 'contents' | 'paragraph' | 'artifact'; readonly marks: readonly Mark[] }
	| { readonly kind: 'heading'; readonly level: number; readonly marks: readonly Mark[] }
	/** A line of the contents, leading to its table. */
	| { readonly kind: 'entry'; readonly table: number; readonly box: Box; readonly marks: readonly Mark[] }
	/** `repeated`: the head of a table again, which is an artifact. */
	| {
			readonly kind: 'table';
			readonly table: number;
			readonly y: number;
			readonly marks: TableMarks;
			readonly repeated?: TableMarks;
	  };

export interface Box {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}

export interface Page {
	readonly width: Emu;
	readonly height: Emu;
	readonly pieces: readonly Piece[];
}

const MARGIN = parseLength('20mm');
const FOOT = parseLength('10mm');
const pt = (points: number) => emu(points * 12_700);

const INK = '#2B2233';
const QUIET = '#6B6172';
const LOOKS = {
	title: { family: 'Source Serif 4', size: pt(22), weight: 600, ink: INK },
	contents: { family: 'Source Sans 3', size: pt(10), weight: 400, ink: INK, lineHeight: 1.2 },
	contentsHead: { family: 'Source Sans 3', size: pt(10), weight: 700, ink: INK },
	paragraph: { family: 'Source Serif 4', size: pt(10.5), weight: 400, ink: INK, lineHeight: 1.1 },
	foot: { family: 'Source Sans 3', size: pt(8), weight: 400, ink: QUIET }
} satisfies Record<string, Look>;
const heading = (level: number): Look => ({
	family: 'Source Serif 4',
	size: pt(level <= 1 ? 16 : level === 2 ? 13 : 11.5),
	weight: 600,
	ink: INK
});
/** Before and after. */
const SPACE = { title: [0, 18], heading: [16, 6], paragraph: [0, 6], table: [4, 12], entry: [0, 1] } as const;

/**
 * Lays a document out as a report: its title, contents where it has several tables, then its text and tables page by
 * page; heads of tables stand again on every page that a table goes on to.
 */
export function layReport(report: Report, faces: Faces): Page[] {
	const { width: w, height: h } = PAPERS[report.paper.name];
	const [width, height] = report.paper.across ? [h, w] : [w, h];
	const measure = emu(width - 2 * MARGIN);
	const top = MARGIN;
	const bottom = height - MARGIN;
	const pages: Piece[][] = [[]];
	let y: number = top;

	const text = (words: string, look: Look, x = MARGIN as number, room = measure as number) =>
		line([{ text: words }], look, x, room);
	const line = (runs: readonly RunView[], look: Look, x = MARGIN as number, room = measure as number) => {
		const words = runs.map((run) => run.text).join('');
		const base = baseOf(words, 'ltr');
		const lines = fillLines(measureParagraph(piecesOf(runs, look, faces)), room).map((one) => ordered(one, base));
		const isRight = base === 'rtl' && Number.isFinite(room);
		const aside = (width: number) => (isRight ? room - width : 0);
		return { x, look, lines, aside, height: lines.length * lineHeightOf(look) };
	};
	type Text = ReturnType<typeof text>;
	const draw = ({ x, look, lines, aside }: Text, at: number, from = 0, to = lines.length): Mark[] =>
		lines.slice(from, to).flatMap((line, i) =>
			line.pieces.map((piece): Mark => ({
				kind: 'text',
				x: x + aside(line.width) + piece.x,
				y: at + i * lineHeightOf(look) + baselineIn(look, line) - piece.rise,
				turn: 0,
				piece
			}))
		);
	const turn = () => {
		pages.push([]);
		y = top;
	};
	const isFresh = () => y === top;
	const put = (piece: Piece, space: number) => {
		pages.at(-1)!.push(piece);
		y += space;
	};
	/** Sets text, over several pages if need be; `after` is what has to follow on the same page. */
	const set = (piece: (marks: Mark[]) => Piece, laid: Text, [before, after]: readonly [number, number], needs = 0) => {
		if (!isFresh()) y += pt(before);
		if (!isFresh() && y + Math.min(laid.height, lineHeightOf(laid.look) * 2) + needs > bottom) turn();
		let done = 0;
		while (done < laid.lines.length) {
			const fit = Math.max(1, Math.floor((bottom - y + 1) / lineHeightOf(laid.look)));
			const to = Math.min(laid.lines.length, done + fit);
			put(piece(draw(laid, y, done, to)), (to - done) * lineHeightOf(laid.look));
			done = to;
			if (done < laid.lines.length) turn();
		}
		y += pt(after);
	};

	set((marks) => ({ kind: 'title', marks }), text(report.title, LOOKS.title), SPACE.title);

	// The contents hold one line a table, so their length is known before the pages of the tables are.
	const listed = report.blocks.flatMap((block) =>
		block.kind === 'table' && report.tables.has(block.index) ? [block.index] : []
	);
	const entries: { page: number; at: number; index: number }[] = [];
	if (listed.length > 1) {
		set((marks) => ({ kind: 'contents', marks }), text('Tables', LOOKS.contentsHead), SPACE.paragraph);
		for (const index of listed) {
			const line = lineHeightOf(LOOKS.contents);
			if (y + line > bottom) turn();
			entries.push({ page: pages.length - 1, at: y, index });
			pages
				.at(-1)!
				.push({ kind: 'entry', table: index, box: { x: MARGIN, y, width: measure, height: line }, marks: [] });
			y += line + pt(SPACE.entry[1]);
		}
		turn();
	}

	const pageOf = new Map<number, number>();
	const laidTables = new Map<number, ReturnType<typeof layTable>>();
	const laidOf = (index: number) => {
		let laid = laidTables.get(index);
		if (!laid) laidTables.set(index, (laid = layTable(report.tables.get(index)!.input, measure, faces)));
		return laid;
	};
	/** How much of a table has to stand below its heading: its head and one more row. */
	const leastOf = (index: number) => {
		const { keeps } = report.tables.get(index)!;
		const laid = laidOf(index);
		let rows = 0;
		while (rows < keeps.length - 1 && keeps[rows]!.withNext) rows++;
		return Math.min(laid.tops[rows + 1]!, (bottom - top) / 3);
	};
	const table = (index: number) => {
		const { input, keeps } = report.tables.get(index)!;
		const laid = laidOf(index);
		const repeated = repeatedRows(input, keeps);
		const head = repeated ? headOf(laid, repeated, ' (continued)', faces) : undefined;
		// A table that runs to the left begins at the right.
		const left = input.table.dir === 'rtl' ? MARGIN + measure - tableWidth(laid) : MARGIN;
		const headHeight = head ? head.tops.at(-1)! : 0;
		const isUseful = head !== undefined && headHeight < (bottom - top) / 2;
		if (!isFresh()) y += pt(SPACE.table[0]);
		const full = bottom - top;
		const heads = innerHeads((inner) => repeatedRows(inner.input, rowKeeps(inner.input.table.roles)), full / 3, faces);
		const stretches = cutTable(laid, keeps, bottom - y, isUseful ? full - headHeight : full, (at) =>
			heads.lead(laid, at)
		);
		stretches.forEach(([from, to], i) => {
			if (i > 0) turn();
			if (to === from) return;
			const isContinued = from > 0;
			const again = isContinued && isUseful ? marksOf(head, [0, headHeight], left, y) : undefined;
			if (again) y += headHeight;
			if (!pageOf.has(index)) pageOf.set(index, pages.length);
			put(
				{
					kind: 'table',
					table: index,
					y,
					marks: marksOf(laid, [from, to], left, y, again !== undefined, heads),
					...(again && { repeated: again })
				},
				heads.lead(laid, from) + to - from
			);
		});
		y += pt(SPACE.table[1]);
	};

	/** A picture in the text, as large as it is where the page has room for it. */
	const picture = (own: CellPicture) => {
		const scale = Math.min(1, measure / own.width, (bottom - top) / own.height);
		const [width, height] = [own.width * scale, own.height * scale];
		if (!isFresh() && y + height > bottom) turn();
		put({ kind: 'paragraph', marks: [{ kind: 'picture', x: MARGIN, y, width, height, picture: own }] }, height);
		y += pt(SPACE.paragraph[1]);
	};

	report.blocks.forEach((block, i) => {
		const next = report.blocks[i + 1];
		const after = report.blocks[i + 2];
		/** A heading or caption stays with the table that follows. */
		const needs =
			next?.kind === 'table' && report.tables.has(next.index)
				? leastOf(next.index)
				: block.kind === 'heading'
					? lineHeightOf(LOOKS.paragraph) * 2 +
						(after?.kind === 'table' && report.tables.has(after.index) ? leastOf(after.index) : 0)
					: 0;
		if (block.kind === 'heading')
			set(
				(marks) => ({ kind: 'heading', level: block.level, marks }),
				line(runsOf(block), heading(block.level)),
				SPACE.heading,
				needs
			);
		else if (block.kind === 'paragraph') {
			if (block.text.trim())
				set((marks) => ({ kind: 'paragraph', marks }), line(runsOf(block), LOOKS.paragraph), SPACE.paragraph, needs);
		} else if (block.kind === 'picture') picture(block.picture);
		else if (report.tables.has(block.index)) table(block.index);
	});

	for (const { page, at, index } of entries) {
		const number = text(String(pageOf.get(index)!), LOOKS.contents);
		const numberWidth = number.lines[0]!.width;
		const label = shortened(report.tables.get(index)!.label, measure - numberWidth - pt(12), (words) =>
			text(words, LOOKS.contents, MARGIN, Infinity)
		);
		const marks = [...draw(label, at), ...draw({ ...number, x: MARGIN + measure - numberWidth }, at)];
		const pieces = pages[page]!;
		const i = pieces.findIndex((piece) => piece.kind === 'entry' && piece.table === index);
		pieces[i] = { ...(pieces[i] as Extract<Piece, { kind: 'entry' }>), marks };
	}

	return pages.map((pieces, i) => {
		const number = text(`${i + 1} of ${pages.length}`, LOOKS.foot);
		const name = shortened(report.title, measure / 2, (words) => text(words, LOOKS.foot, MARGIN, Infinity));
		const at = height - FOOT - lineHeightOf(LOOKS.foot);
		const foot = [...draw(name, at), ...draw({ ...number, x: MARGIN + measure - number.lines[0]!.width }, at)];
		return { width: emu(width), height: emu(height), pieces: [...pieces, { kind: 'artifact', marks: foot }] };
	});
}

/** The longest beginning of `words` that fits on one line of a measure, with an ellipsis where something is left out. */
function shortened<T extends { lines: readonly { width: number }[] }>(
	words: string,
	measure: number,
	lay: (words: string) => T
): T {
	const plain = words.replace(/\s*\n\s*/g, ' ');
	const whole = lay(plain);
	if (whole.lines[0]!.width <= measure) return whole;
	let low = 0;
	let high = plain.length;
	while (low < high) {
		const middle = (low + high + 1) >> 1;
		if (lay(`${plain.slice(0, middle).trimEnd()}…`).lines[0]!.width <= measure) low = middle;
		else high = middle - 1;
	}
	return lay(`${plain.slice(0, low).trimEnd()}…`);
}
