import type { FlatStyle, SetLeaf } from './inherit.ts';
import { partWords } from './parts.ts';

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
	if (value(leaves, 'text.case') === 'upper') words.push('in capitals');
	if (value(leaves, 'text.case') === 'small-caps') words.push('in small capitals');
	const ink = value(leaves, 'text.ink');
	if (ink !== undefined && ink !== 'none') words.push(`in ${ink}`);
	return words;
}

function lineWords(leaves: Leaves, place: string): string | undefined {
	const pattern = value(leaves, `lines.${place}.pattern`);
	if (pattern === undefined || pattern === 'none') return undefined;
	return pattern === 'solid' ? 'line' : `${pattern} line`;
}

const list = (words: readonly string[]): string =>
	words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** What a part does, as "bold on fern, a double line above"; undefined where it does nothing that can be seen. */
function partSentence(leaves: Leaves): string | undefined {
	if (!leaves) return undefined;
	const words = textWords(leaves);
	const fill = fillWords(leaves);
	if (fill) words.push(`on ${fill}`);
	const above = lineWords(leaves, 'top');
	const below = lineWords(leaves, 'bottom');
	if (above) words.push(below ? `between a ${above} and a ${below}` : `under a ${above}`);
	else if (below) words.push(`over a ${below}`);
	return words.length ? words.join(' ') : undefined;
}

/** One or two sentences that say what a style does to a table, for cards, search and readers of the screen. */
export function describeStyle(style: FlatStyle): string {
	const parts = (name: string) => style.parts.get(name);
	const ground = parts('ground');
	const clauses: string[] = [];
	const banded = [...style.parts.keys()].filter(
		(name) => /^(rowBand|columnBand):/.test(name) && fillWords(parts(name))
	);
	for (const name of banded) {
		const sizes = name.startsWith('rowBand') ? style.bands.rowSizes : style.bands.columnSizes;
		const everySecond = sizes.length === 2 && sizes.every((size) => size === 1) && name.endsWith(':2');
		const what = name.startsWith('rowBand') ? 'row' : 'column';
		clauses.push(`${everySecond ? `every second ${what}` : partWords(name)} is ${fillWords(parts(name))}`);
	}
	const rim = ['top', 'bottom', 'start', 'end'].filter((place) => lineWords(ground, place));
	const rows = lineWords(ground, 'betweenRows');
	const columns = lineWords(ground, 'betweenColumns');
	if (rim.length === 4 && rows && columns) clauses.push('every cell stands in a box');
	else {
		if (rim.length)
			clauses.push(
				rim.length === 4 ? 'lines all round' : `${rim.length === 1 ? 'a line' : 'lines'} at the ${list(rim)}`
			);
		if (rows) clauses.push(`a ${rows} between rows`);
		if (columns) clauses.push(`a ${columns} between columns`);
	}
	if (fillWords(ground)) clauses.unshift(`cells on ${fillWords(ground)}`);
	for (const [name, words] of [
		['header', 'the header is'],
		['firstColumn', 'the first column is'],
		['group:1', 'groups are'],
		['group', 'groups are'],
		['subtotal', 'subtotals are'],
		['total', 'the total is']
	] as const) {
		const sentence = partSentence(parts(name));
		if (sentence) clauses.push(`${words} ${sentence}`);
	}
	if (style.parts.get('columns:money')?.get('align.h')?.value === 'decimal')
		clauses.push('money lines up on the decimal mark');
	if (clauses.length === 0) return 'Says nothing yet.';
	const text = clauses.join('; ');
	return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}
