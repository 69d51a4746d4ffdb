import { conditionWords } from './conditions.ts';
import type { FlatStyle, SetLeaf } from './inherit.ts';
import { parsePart, partWords } from './parts.ts';

type Leaves = ReadonlyMap<string, SetLeaf> | undefined;

const value = (leaves: Leaves, path: string) => leaves?.get(path)?.value;

function fillWords(leaves: Leaves): string | undefined {
	const ink = value(leaves, 'fill.ink');
	if (ink === undefined || ink === 'none') return undefined;
	const tint = value(leaves, 'fill.tint');
	return tint === undefined || tint === 1 ? String(ink) : `${ink} at ${Math.round(Number(tint) * 100)} %`;
}

function textWords(leaves: Leaves): string[] {
	const words: string[] = [];
	const weight = value(leaves, 'text.weight');
	if (typeof weight === 'number' && weight >= 600) words.push('bold');
	if (value(leaves, 'text.italic') === true) words.push('italic');
	const letters = value(leaves, 'text.case');
	if (letters === 'upper') words.push('in capitals');
	if (letters === 'small-caps') words.push('in small capitals');
	if (letters === 'lower') words.push('in small letters');
	const underline = value(leaves, 'text.underline');
	if (underline === 'single' || underline === 'double') words.push('underlined');
	const ink = value(leaves, 'text.ink');
	if (ink !== undefined && ink !== 'none') words.push(`in ${ink}`);
	const size = value(leaves, 'text.size');
	if (size !== undefined) words.push(`at ${size}`);
	return words;
}

function lineWords(leaves: Leaves, place: string): string | undefined {
	const pattern = value(leaves, `lines.${place}.pattern`);
	if (pattern === undefined || pattern === 'none') return undefined;
	const ink = value(leaves, `lines.${place}.ink`);
	return `${pattern === 'solid' ? '' : `${pattern} `}${ink === 'paper' ? 'paper-coloured ' : ''}line`;
}

const list = (words: readonly string[]): string =>
	words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** What a part does, as "bold on fern, under a double line"; undefined where it does nothing that can be seen. */
function partSentence(leaves: Leaves): string | undefined {
	if (!leaves) return undefined;
	const words = textWords(leaves);
	const fill = fillWords(leaves);
	if (fill) words.push(`on ${fill}`);
	const above = lineWords(leaves, 'top');
	const below = lineWords(leaves, 'bottom');
	if (above) words.push(below ? `between a ${above} and a ${below}` : `under a ${above}`);
	else if (below) words.push(`over a ${below}`);
	if (value(leaves, 'lines.diagonalDown.pattern') || value(leaves, 'lines.diagonalUp.pattern'))
		words.push('crossed out by a diagonal');
	return words.length ? words.join(' ') : undefined;
}

/** Parts whose plural reads better than "the …  is". */
const SUBJECTS: Record<string, string> = {
	title: 'the title is',
	header: 'the header is',
	firstColumn: 'the first column is',
	lastColumn: 'the last column is',
	group: 'group headings are',
	subtotal: 'subtotals are',
	total: 'the total is',
	note: 'notes are'
};

function bandClause(style: FlatStyle, name: string): string {
	const isRow = name.startsWith('rowBand');
	const sizes = isRow ? style.bands.rowSizes : style.bands.columnSizes;
	const what = isRow ? 'row' : 'column';
	const fill = fillWords(style.parts.get(name))!;
	const at = parsePart(name)!.number;
	if (sizes.every((size) => size === 1) && at === sizes.length)
		return `every ${['', '', 'second', 'third', 'fourth', 'fifth'][sizes.length] ?? `${sizes.length}th`} ${what} is ${fill}`;
	return `${what}s ${stripeRange(sizes, at)} of every ${sizes.reduce((sum, size) => sum + size, 0)} are ${fill}`;
}

function stripeRange(sizes: readonly number[], at: number): string {
	const first = sizes.slice(0, at - 1).reduce((sum, size) => sum + size, 0) + 1;
	const last = first + (sizes[at - 1] ?? 1) - 1;
	return first === last ? String(first) : `${first}–${last}`;
}

function groundLines(ground: Leaves): string[] {
	const rim = ['top', 'bottom', 'start', 'end'].filter((place) => lineWords(ground, place));
	const rows = lineWords(ground, 'betweenRows');
	const columns = lineWords(ground, 'betweenColumns');
	if (rim.length === 4 && rows && columns) return ['every cell stands in a box'];
	const clauses: string[] = [];
	const places: Record<string, string> = { top: 'top', bottom: 'foot', start: 'start', end: 'end' };
	if (rim.length === 4) clauses.push('lines all round');
	else if (rim.length)
		clauses.push(`${rim.length === 1 ? 'a line' : 'lines'} at the ${list(rim.map((place) => places[place]!))}`);
	if (rows) clauses.push(`a ${rows} between rows`);
	if (columns) clauses.push(`a ${columns} between columns`);
	return clauses;
}

/** One or two sentences that say what a style does to a table, for cards, search and readers of the screen. */
export function describeStyle(style: FlatStyle): string {
	const ground = style.parts.get('ground');
	const clauses: string[] = [];
	if (fillWords(ground)) clauses.push(`cells on ${fillWords(ground)}`);
	for (const name of style.parts.keys()) {
		const { family, number } = parsePart(name)!;
		const sizes = family === 'rowBand' ? style.bands.rowSizes : style.bands.columnSizes;
		if (/^(row|column)Band$/.test(family) && number <= sizes.length && fillWords(style.parts.get(name)))
			clauses.push(bandClause(style, name));
	}
	clauses.push(...groundLines(ground));
	const decimal = [...style.parts].flatMap(([name, leaves]) =>
		name.startsWith('columns:') && value(leaves, 'align.h') === 'decimal'
			? [partWords(name).replace(' columns', '')]
			: []
	);
	for (const [name, leaves] of style.parts) {
		const sentence = partSentence(leaves);
		if (!sentence || name === 'ground' || /Band:/.test(name)) continue;
		const { family, number } = parsePart(name)!;
		const subject =
			number > 1 || family === 'header' || !(family in SUBJECTS)
				? name === 'header'
					? SUBJECTS.header!
					: `${name.startsWith('columns:') && !name.startsWith('columns:"') ? partWords(name) : `the ${partWords(name)}`} ${name.startsWith('columns:') && !name.includes('"') ? 'are' : 'is'}`
				: SUBJECTS[family]!;
		clauses.push(`${subject} ${sentence}`);
	}
	if (decimal.length)
		clauses.push(`${list(decimal)} ${decimal.length === 1 ? 'lines' : 'line'} up on the decimal mark`);
	for (const rule of style.rules) {
		const sentence = partSentence(rule.leaves);
		if (sentence && !rule.off) {
			const reach = rule.extends && rule.extends !== 'cell' ? `its ${rule.extends} is` : 'it is';
			clauses.push(`where ${conditionWords(rule.where)}, ${reach} ${sentence}`);
		}
	}
	if (style.reading === 'up') clauses.push('it reads upwards');
	if (clauses.length === 0) return 'Says nothing yet.';
	const text = clauses.join('; ');
	return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}
