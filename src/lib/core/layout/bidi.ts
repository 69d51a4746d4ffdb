import bidiFactory from 'bidi-js';
import type { Direction } from '../table/grid.ts';
import { baseOf, runsBothWays, STRONG } from './direction.ts';
import { pieceWidth, type LaidLine } from './paragraph.ts';

const bidi = bidiFactory();

/**
 * A line as it stands before the eye: its pieces cut where the direction of their letters changes, each in its place from the
 * line's left (UAX 9). They stay in the order in which they are read. Words that run to the left are pieces of their own.
 */
export function ordered(line: LaidLine, base: Direction): LaidLine {
	const text = line.pieces.map((piece) => piece.text).join('');
	if (!runsBothWays(text, base)) return line;
	const pieceAt = line.pieces.flatMap((piece, i) => Array<number>(piece.text.length).fill(i));
	const starts = line.pieces.map((_, i) => pieceAt.indexOf(i));
	const cut = stretchesOf(text, base, (at) => starts.includes(at)).map(({ from, to, level }) => {
		const piece = line.pieces[pieceAt[from]!]!;
		const start = starts[pieceAt[from]!]!;
		const part = text.slice(from, to);
		const isWhole = part.length === piece.text.length;
		const { typed, ...rest } = piece;
		const isAlike = typed?.length === piece.text.length;
		const own = isWhole ? typed : isAlike ? typed.slice(from - start, to - start) : undefined;
		return {
			level,
			piece: {
				...rest,
				...(own !== undefined && { typed: own }),
				text: part,
				width: isWhole ? piece.width : pieceWidth(piece, part) + (part.split(' ').length - 1) * piece.spread,
				...(level % 2 === 1 && { isTurned: true as const })
			}
		};
	});
	const places = new Array<number>(cut.length);
	let x = 0;
	// A space at the end of a line that runs to the left hangs out of it.
	if (base === 'rtl') for (let i = cut.length - 1; i >= 0 && !cut[i]!.piece.text.trim(); i--) x -= cut[i]!.piece.width;
	for (const i of visualOrder(cut.map(({ level }) => level))) {
		places[i] = x;
		x += cut[i]!.piece.width;
	}
	return { ...line, pieces: cut.map(({ piece }, i) => ({ ...piece, x: places[i]! })) };
}

/** Stretches of a text that run one way; those that run to the left are words and spaces between them. */
function stretchesOf(text: string, base: Direction, isCut: (at: number) => boolean = () => false) {
	const { levels } = bidi.getEmbeddingLevels(text, base);
	// Space at the line's end stands where the paragraph ends (UAX 9, L1).
	for (let i = text.length - 1; i >= 0 && /\s/.test(text[i]!); i--) levels[i] = base === 'rtl' ? 1 : 0;
	const stretches: { from: number; to: number; level: number }[] = [];
	for (let from = 0; from < text.length;) {
		const level = levels[from]!;
		const isSpace = text[from] === ' ';
		let to = from + 1;
		while (
			to < text.length &&
			levels[to] === level &&
			!isCut(to) &&
			(level % 2 === 0 || (text[to] === ' ') === isSpace)
		)
			to++;
		stretches.push({ from, to, level });
		from = to;
	}
	return stretches;
}

/** A text as stretches in the order in which they stand before the eye, each to be drawn by itself. */
export function fromTheLeft(text: string): { readonly text: string; readonly isTurned: boolean }[] {
	const base = baseOf(text, 'ltr');
	if (!runsBothWays(text, base)) return [{ text, isTurned: false }];
	const stretches = stretchesOf(text, base);
	return visualOrder(stretches.map(({ level }) => level)).map((i) => {
		const { from, to, level } = stretches[i]!;
		return { text: text.slice(from, to), isTurned: level % 2 === 1 };
	});
}

/** The order of stretches from the left, by their levels (UAX 9, L2). */
function visualOrder(levels: readonly number[]): number[] {
	const order = levels.map((_, i) => i);
	const odd = levels.filter((level) => level % 2 === 1);
	for (let level = Math.max(...levels); level >= Math.min(...odd, Infinity); level--)
		for (let i = 0; i < order.length; i++) {
			if (levels[order[i]!]! < level) continue;
			let end = i;
			while (end + 1 < order.length && levels[order[end + 1]!]! >= level) end++;
			order.splice(i, end - i + 1, ...order.slice(i, end + 1).reverse());
			i = end;
		}
	return order;
}

/** Letters as they are drawn from the left in a stretch that runs to the left: brackets mirrored (UAX 9, L4), signs in their order. */
export function drawnFromLeft(text: string): string {
	const mirrored = [...text].map((character) => bidi.getMirroredCharacter(character) ?? character);
	// A shaping engine turns words of letters round by itself.
	return (STRONG.test(text) ? mirrored : mirrored.reverse()).join('');
}
