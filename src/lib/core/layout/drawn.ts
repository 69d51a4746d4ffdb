import type { Shadow } from '../properties/shadow.ts';
import type { Mark, TableMarks } from './marks.ts';
import type { Page } from './report.ts';

/** Text of a drawn page: plain data, for whoever draws it. */
export interface DrawnText {
	readonly x: number;
	readonly y: number;
	readonly turn: 0 | 90 | 270;
	readonly text: string;
	readonly family: string;
	readonly weight: number;
	readonly italic: boolean;
	readonly size: number;
	readonly ink: string;
	readonly tracking: number;
	readonly spread: number;
	readonly width: number;
	readonly underline: 'none' | 'single' | 'double';
	/** Its letters run from right to left, from the right of its place. */
	readonly isTurned?: true;
	readonly shadow?: Shadow;
}

/** A picture in its place; `source` is a `data:` address. */
export interface DrawnPicture {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
	readonly source: string;
	readonly alternative: string;
}

/** A page's marks in the order in which they are drawn; lengths are EMU. */
export interface DrawnPage {
	readonly width: number;
	readonly height: number;
	readonly shadows: readonly Extract<Mark, { kind: 'shadow' }>[];
	readonly fills: readonly Extract<Mark, { kind: 'fill' }>[];
	readonly lines: readonly Extract<Mark, { kind: 'line' }>[];
	readonly texts: readonly DrawnText[];
	readonly pictures: readonly DrawnPicture[];
}

/** A page without its structure. */
export function drawnPage({ width, height, pieces }: Page): DrawnPage {
	const marks: Mark[] = [];
	const table = ({ fills, lines, cells }: TableMarks) => {
		marks.push(...fills);
		for (const cell of cells) {
			marks.push(...cell.marks);
			cell.repeated.forEach(table);
			cell.tables.forEach(table);
		}
		marks.push(...lines);
	};
	for (const piece of pieces) {
		if (piece.kind !== 'table') marks.push(...piece.marks);
		else {
			if (piece.repeated) table(piece.repeated);
			table(piece.marks);
		}
	}
	const of = <K extends Mark['kind']>(kind: K) =>
		marks.filter((mark): mark is Extract<Mark, { kind: K }> => mark.kind === kind);
	return {
		width,
		height,
		shadows: of('shadow'),
		fills: of('fill'),
		lines: of('line'),
		pictures: of('picture').map(({ x, y, width, height, picture: { source, alternative } }) => ({
			x,
			y,
			width,
			height,
			source,
			alternative
		})),
		texts: of('text').map(({ x, y, turn, piece, shadow }) => {
			const { family, weight, italic } = piece.face.name;
			const { text, size, ink, tracking, spread, width: length, underline, isTurned } = piece;
			return {
				x,
				y,
				turn,
				text,
				family,
				weight,
				italic,
				size,
				ink,
				tracking,
				spread,
				width: length,
				underline,
				...(isTurned && { isTurned }),
				...(shadow && { shadow })
			};
		})
	};
}
