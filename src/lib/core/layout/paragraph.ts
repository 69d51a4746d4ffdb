import LineBreaker from 'linebreak';
import type { Hex } from '../colour.ts';
import type { Emu } from '../units.ts';
import type { Face } from './faces.ts';

/** Text in one face, size and ink. Lengths are EMU, not rounded while a line is being filled. */
export interface TextPiece {
	readonly text: string;
	/** What the author typed, where case or small capitals show something else. */
	readonly typed?: string;
	readonly face: Face;
	readonly size: number;
	readonly tracking: number;
	/** Above the baseline. */
	readonly rise: number;
	readonly ink: Hex;
	readonly underline: 'none' | 'single' | 'double';
	/** The address that it leads to. */
	readonly link?: string;
}

export interface LaidPiece extends TextPiece {
	/** From the line's start. */
	readonly x: number;
	readonly width: number;
	/** Added to every space, where the line is justified. */
	readonly spread: number;
	/** Its letters run from right to left. */
	readonly isTurned?: true;
}

export interface LaidLine {
	readonly pieces: readonly LaidPiece[];
	/** Without the space at its end. */
	readonly width: number;
	/** Whether the paragraph ends here, or a break was asked for. */
	readonly isLast: boolean;
}

/** An unbreakable stretch: what stands between two places where a line may break (UAX 14). */
interface Segment {
	readonly pieces: readonly { readonly piece: TextPiece; readonly text: string; readonly width: number }[];
	/** Without the space at its end, and that space. */
	readonly width: number;
	readonly space: number;
	/** The line has to end after it. */
	readonly ends: boolean;
}

export interface Measured {
	readonly segments: readonly Segment[];
	/** The longest unbreakable stretch, and the longest line if nothing is broken. */
	readonly min: number;
	readonly max: number;
}

export const pieceWidth = ({ face, size, tracking }: TextPiece, text: string): number =>
	face.advance(text) * size + tracking * [...text].length;

/** A stretch of a piece. What was typed goes with it; as a whole with the first stretch, where it is longer or shorter than what shows. */
function stretchOf(piece: TextPiece, whole: string, from: number, to: number): TextPiece {
	const { typed } = piece;
	if (typed === undefined || (from === 0 && to === whole.length)) return piece;
	return { ...piece, typed: typed.length === whole.length ? typed.slice(from, to) : from === 0 ? typed : '' };
}

const BREAKS = /[\n\r\v\f\u0085\u2028\u2029]+$/;

/** Cuts the pieces of a paragraph at the places where a line may break, and measures what stands between. */
export function measureParagraph(pieces: readonly TextPiece[]): Measured {
	const text = pieces.map((piece) => piece.text).join('');
	const segments: Segment[] = [];
	const breaker = new LineBreaker(text);
	let at = 0;
	let piece = 0;
	let offset = 0;
	for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
		const parts: { piece: TextPiece; text: string; width: number }[] = [];
		while (at < next.position && piece < pieces.length) {
			const current = pieces[piece]!;
			const part = current.text.slice(offset, offset + next.position - at);
			if (part) {
				const shown = part.replace(BREAKS, '');
				const own = stretchOf(current, current.text, offset, offset + shown.length);
				if (shown) parts.push({ piece: own, text: shown, width: pieceWidth(current, shown) });
				at += part.length;
				offset += part.length;
			}
			if (offset >= current.text.length) {
				piece++;
				offset = 0;
			}
		}
		const all = parts.reduce((sum, { width }) => sum + width, 0);
		const last = parts.at(-1);
		const bare = last?.text.replace(/[ \t\u2000-\u200b]+$/, '');
		const space = last && bare !== last.text ? last.width - (bare ? pieceWidth(last.piece, bare!) : 0) : 0;
		segments.push({ pieces: parts, width: all - space, space, ends: next.required && at < text.length });
	}
	let max = 0;
	let line = 0;
	for (const { width, space, ends } of segments) {
		max = Math.max(max, line + width);
		line = ends ? 0 : line + width + space;
	}
	return { segments, min: segments.reduce((most, { width }) => Math.max(most, width), 0), max };
}

/** Cuts a segment that is longer than a whole line between characters, where no better place is. */
function chop({ pieces, space, ends }: Segment, measure: number): Segment[] {
	const out: Segment[] = [];
	let parts: { piece: TextPiece; text: string; width: number }[] = [];
	let width = 0;
	const flush = (isLast: boolean) => {
		if (parts.length)
			out.push({
				pieces: parts,
				width: isLast ? width - space : width,
				space: isLast ? space : 0,
				ends: isLast && ends
			});
		parts = [];
		width = 0;
	};
	for (const { piece, text } of pieces) {
		let taken = '';
		let takenWidth = 0;
		let done = 0;
		const take = () => {
			if (!taken) return;
			parts.push({ piece: stretchOf(piece, text, done, done + taken.length), text: taken, width: takenWidth });
			done += taken.length;
			width += takenWidth;
		};
		for (const { segment: grapheme } of new Intl.Segmenter(undefined, { granularity: 'grapheme' }).segment(text)) {
			const wider = pieceWidth(piece, taken + grapheme);
			if (width + wider > measure && (taken || parts.length) && grapheme.trim()) {
				take();
				flush(false);
				taken = grapheme;
				takenWidth = pieceWidth(piece, grapheme);
			} else {
				taken += grapheme;
				takenWidth = wider;
			}
		}
		take();
	}
	flush(true);
	return out;
}

/** Fills lines of a measure, in EMU. An empty paragraph is one empty line. */
export function fillLines({ segments, min }: Measured, measure: number): LaidLine[] {
	const fitting =
		min > measure ? segments.flatMap((one) => (one.width > measure ? chop(one, measure) : [one])) : segments;
	const lines: LaidLine[] = [];
	let current: Segment[] = [];
	let width = 0;
	const flush = (isLast: boolean) => {
		const pieces: { -readonly [K in keyof LaidPiece]: LaidPiece[K] }[] = [];
		let x = 0;
		for (const segment of current)
			for (const { piece, text, width } of segment.pieces) {
				const last = pieces.at(-1);
				if (last && last.face === piece.face && last.x + last.width === x && sameType(last, piece)) {
					last.text += text;
					last.width += width;
				} else pieces.push({ ...piece, text, x, width, spread: 0 });
				x += width;
			}
		lines.push({ pieces, width: width - (current.at(-1)?.space ?? 0), isLast });
		current = [];
		width = 0;
	};
	for (const segment of fitting) {
		// Sums of rounded advances may differ in their last digits; a word that fits by so little fits.
		if (current.length && width + segment.width > measure + 1) flush(false);
		current.push(segment);
		width += segment.width + segment.space;
		if (segment.ends) flush(true);
	}
	if (current.length || lines.length === 0) flush(true);
	return lines;
}

function sameType(a: TextPiece, b: TextPiece): boolean {
	return (
		a.size === b.size &&
		a.tracking === b.tracking &&
		a.rise === b.rise &&
		a.ink === b.ink &&
		a.underline === b.underline &&
		a.link === b.link &&
		a.typed === undefined &&
		b.typed === undefined
	);
}

/** Opens the spaces of a line so that it fills the measure. */
export function justified(line: LaidLine, measure: Emu | number): LaidLine {
	if (line.isLast) return line;
	const gaps = line.pieces.reduce((sum, { text }, i) => {
		const counted = i === line.pieces.length - 1 ? text.trimEnd() : text;
		return sum + counted.split(' ').length - 1;
	}, 0);
	if (gaps === 0 || line.width >= measure) return line;
	const spread = (measure - line.width) / gaps;
	let moved = 0;
	const pieces = line.pieces.map((piece) => {
		const own = (piece.text.split(' ').length - 1) * spread;
		const placed = { ...piece, x: piece.x + moved, width: piece.width + own, spread };
		moved += own;
		return placed;
	});
	return { ...line, pieces, width: measure };
}
