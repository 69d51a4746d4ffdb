import { pluralWord } from '../words.ts';
import { conditionWords } from './conditions.ts';
import type { FlatStyle, SetLeaf } from './inherit.ts';
import { fill } from '../properties/fill.ts';
import { PROPERTIES } from '../properties/index.ts';
import { ROLES } from '../roles/index.ts';
import { parsePart, partWords } from './parts.ts';
import { leafWords } from './words.ts';

type Leaves = ReadonlyMap<string, SetLeaf> | undefined;

const value = (leaves: Leaves, path: string) => leaves?.get(path)?.value;

const fillWords = (leaves: Leaves): string | undefined =>
	fill.sentence!.words((path) => value(leaves, path))?.replace(/^on /, '');

/** Properties that a sentence speaks of, in the order in which it does; fills of a part come last. */
const TOLD = PROPERTIES.flatMap(({ sentence }) => sentence ?? []).sort((a, b) => a.place - b.place);

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
	const words = TOLD.flatMap((told) => told.words((path) => value(leaves, path)) ?? []);
	const above = lineWords(leaves, 'top');
	const below = lineWords(leaves, 'bottom');
	if (above) words.push(below ? `between a ${above} and a ${below}` : `under a ${above}`);
	else if (below) words.push(`over a ${below}`);
	if (value(leaves, 'lines.diagonalDown.pattern') || value(leaves, 'lines.diagonalUp.pattern'))
		words.push('crossed out by a diagonal');
	return words.length ? words.join(' ') : undefined;
}

/** How a clause about a part begins: "group headings are", "the first column is". */
function subject(name: string): string {
	const { family, number } = parsePart(name)!;
	const role = ROLES.find((one) => one.family === family);
	if (role && number <= 1 && (!role.isHeader || number === 0)) return role.subject;
	const isMany = family === 'columns' && !name.includes('"');
	return `${isMany ? '' : 'the '}${partWords(name)} ${isMany ? 'are' : 'is'}`;
}

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
		clauses.push(`${pluralWord(rim.length, 'a line', 'lines')} at the ${list(rim.map((place) => places[place]!))}`);
	if (rows) clauses.push(`a ${rows} between rows`);
	if (columns) clauses.push(`a ${columns} between columns`);
	return clauses;
}

/** What is said of a style that sets nothing a sentence speaks of. */
function silentSentence({ parts, rules }: FlatStyle): string {
	const paths = [...parts.values(), ...rules.map(({ leaves }) => leaves)].flatMap((leaves) => [...leaves.keys()]);
	const words = [...new Set(paths.map(leafWords))];
	if (words.length === 0) return 'Says nothing yet.';
	const told = words.slice(0, MOST_TOLD);
	const more = words.length - told.length;
	return `Sets ${more ? `${told.join(', ')} and ${more} more` : list(told)}.`;
}
const MOST_TOLD = 4;

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
		clauses.push(`${subject(name)} ${sentence}`);
	}
	if (decimal.length)
		clauses.push(`${list(decimal)} ${pluralWord(decimal.length, 'lines', 'line')} up on the decimal mark`);
	for (const rule of style.rules) {
		const sentence = partSentence(rule.leaves);
		if (sentence && !rule.off) {
			const reach = rule.extends && rule.extends !== 'cell' ? `its ${rule.extends} is` : 'it is';
			clauses.push(`where ${conditionWords(rule.where)}, ${reach} ${sentence}`);
		}
	}
	if (style.reading === 'up') clauses.push('it reads upwards');
	if (clauses.length === 0) return silentSentence(style);
	const text = clauses.join('; ');
	return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}
