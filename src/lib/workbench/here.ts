import { edgeParts, type Resolved } from '../core/cascade/resolve.ts';
import { BLACK, contrast, mix, PAPER, toHex, type Hex } from '../core/colour.ts';
import { behaviour } from '../core/roles/index.ts';
import type { FlatStyle } from '../core/style/inherit.ts';
import { parsePart, partWords } from '../core/style/parts.ts';
import type { LeafValue, LinePlace } from '../core/style/types.ts';
import { NUMERIC_KINDS } from '../core/table/columns.ts';
import { cellAt, type Side } from '../core/table/grid.ts';

type Leaf = readonly [path: string, value: LeafValue | undefined];

/** Parts that can say one thing of a cell, most fitting first. `parts` say it together. */
export interface Voice {
	readonly parts: readonly string[];
	readonly words: string;
}
export interface LineVoice extends Voice {
	readonly place: LinePlace;
}

/** What can be set at a cell of a specimen, and which parts can say it there. */
export interface Here {
	readonly fill: readonly Voice[];
	readonly alignment: readonly Voice[];
	/** Of the edge on each side; empty where there is none. */
	readonly lines: Readonly<Record<Side, readonly LineVoice[]>>;
}

const voice = (part: string): Voice => ({ parts: [part], words: partWords(part) });

/** A part that only some tables have (a tier, a level, a column by its name) speaks where the style has it already. */
const isOffered = (style: FlatStyle, part: string): boolean =>
	style.parts.has(part) || !(parsePart(part)!.rank === 4 ? /:\d+$/ : /^columns:"/).test(part);

/** The role of the row, then its band, then the columns: what a person means who points at a cell and says a colour. */
const FITTING = [4, 2, 5, 3, 1] as const;
/** For a line that runs along the rows: the row, then all cells alike. */
const FITTING_ACROSS = [4, 1, 2, 3, 5] as const;
const FITTING_DOWN = [3, 1, 4, 2, 5] as const;

function byFit<T extends { readonly rank: number }>(fitting: readonly number[], parts: readonly T[]): T[] {
	return [...parts].sort((a, b) => fitting.indexOf(a.rank) - fitting.indexOf(b.rank));
}

/** Who can speak of a cell and its edges. */
export function hereAt(resolved: Resolved, style: FlatStyle, row: number, column: number): Here {
	const { structure } = resolved;
	const { table, cellSignature, signatures, across, down } = structure;
	const { r, c, rows, cols } = cellAt(table, row, column);
	const parts = signatures[cellSignature[r * table.columns + c]!]!.parts.filter(
		({ name, rank }) => rank >= 1 && rank <= 5 && isOffered(style, name)
	);
	const fill = byFit(FITTING, [...parts].reverse()).map(({ name }) => voice(name));
	const kind = table.columnInfo[c]?.kind;
	const figures: Voice[] =
		kind && NUMERIC_KINDS.has(kind)
			? [{ parts: [...NUMERIC_KINDS].map((one) => `columns:${one}`), words: 'all columns of figures' }]
			: [];
	const ofKind = kind ? [voice(`columns:${kind}`)] : [];
	const others = fill.filter(({ parts: [name] }) => !ofKind.some(({ parts }) => parts[0] === name));
	const columnsFirst = behaviour(table.roles[r]!).holdsFigures;
	const edge = (side: Side): number =>
		side === 'top'
			? across[r * table.columns + c]!
			: side === 'bottom'
				? across[(r + rows) * table.columns + c]!
				: down[r * (table.columns + 1) + (side === 'start' ? c : c + cols)]!;
	const linesOf = (side: Side): LineVoice[] =>
		byFit(
			side === 'top' || side === 'bottom' ? FITTING_ACROSS : FITTING_DOWN,
			edgeParts(structure, edge(side))
				.filter(({ part }) => part.rank >= 1 && part.rank <= 5 && isOffered(style, part.name))
				.map(({ part, place }) => ({ ...voice(part.name), place, rank: part.rank }))
		).map(({ parts, words, place }) => ({ parts, words, place }));
	return {
		fill,
		alignment: columnsFirst ? [...figures, ...ofKind, ...others] : [...fill, ...figures],
		lines: { top: linesOf('top'), bottom: linesOf('bottom'), start: linesOf('start'), end: linesOf('end') }
	};
}

/** A fill, and the ink in which text reads on it; no ink where what the ground has does. */
export interface FillPair {
	readonly ink: string;
	/** 1 for the ink itself. */
	readonly tint: number;
	readonly fill: Hex;
	readonly text: string | undefined;
	readonly textColour: Hex;
}

/** WCAG 2.2, SC 1.4.3. */
const READABLE = 4.5;
const TINTS = [1, 0.15] as const;

/** Each ink of a house as a fill, strong and pale, with the text ink that goes with it. */
export function fillPairs(inks: Readonly<Record<string, string>>, groundInk: string | undefined): FillPair[] {
	const hexes = Object.entries(inks).flatMap(([name, value]) => {
		const hex = toHex(value);
		return hex ? [{ name, hex }] : [];
	});
	const ground = (groundInk && (toHex(inks[groundInk] ?? groundInk) ?? undefined)) || BLACK;
	return TINTS.flatMap((tint) =>
		hexes.map(({ name, hex }): FillPair => {
			const fill = mix(hex, PAPER, tint);
			if (contrast(ground, fill) >= READABLE) return { ink: name, tint, fill, text: undefined, textColour: ground };
			const [best] = [...hexes, { name: PAPER, hex: PAPER }, { name: BLACK, hex: BLACK }]
				.map((one) => ({ ...one, ratio: contrast(one.hex, fill) }))
				.sort((a, b) => Number(b.ratio >= READABLE) - Number(a.ratio >= READABLE) || rankOf(a) - rankOf(b));
			return { ink: name, tint, fill, text: best!.name, textColour: best!.hex };
		})
	);
}
/** Among inks that can be read, one of the house comes before plain black or white, and then the clearest. */
const rankOf = ({ name, ratio }: { name: string; ratio: number }): number => (name.startsWith('#') ? 100 : 0) - ratio;

export const leavesOfPair = ({ ink, tint, text }: FillPair): Leaf[] => [
	['fill.ink', ink],
	['fill.tint', tint === 1 ? undefined : tint],
	['text.ink', text]
];
