import { BLACK, PAPER, mix, type Hex } from '../colour.ts';
import { leafDefinition } from '../style/leaves.ts';
import type { Part } from '../style/parts.ts';
import type { Aspect, LeafValue, LinePattern } from '../style/types.ts';
import { parseLength, type Emu } from '../units.ts';
import { inkHex, traceCell, type Decided, type EdgeResult, type House, type Resolved } from './resolve.ts';
import type { Structure } from './structure.ts';

export interface Line {
	readonly pattern: LinePattern;
	readonly weight: Emu;
	readonly ink: Hex;
}

/** A cell's look in computed values: inks are sRGB as they show, lengths are EMU. An absent field says nothing. */
export interface Look {
	readonly fill?: Hex | 'none';
	readonly family?: string;
	readonly size?: Emu;
	readonly weight?: number;
	readonly italic?: boolean;
	readonly underline?: 'none' | 'single' | 'double';
	readonly case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps';
	readonly tracking?: Emu;
	/** A factor of the font's own line. */
	readonly lineHeight?: number;
	readonly ink?: Hex;
	readonly h?: 'start' | 'middle' | 'end' | 'justify' | 'decimal';
	readonly v?: 'top' | 'middle' | 'bottom';
	readonly rotate?: 0 | 90 | 270;
	readonly marginTop?: Emu;
	readonly marginEnd?: Emu;
	readonly marginBottom?: Emu;
	readonly marginStart?: Emu;
	readonly diagonalDown?: Line | null;
	readonly diagonalUp?: Line | null;
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] };
export type LookField = keyof Look;

/** Which aspect each field of a look belongs to. */
export const FIELD_ASPECT: Record<LookField, Aspect> = {
	fill: 'fill',
	family: 'text',
	size: 'text',
	weight: 'text',
	italic: 'text',
	underline: 'text',
	case: 'text',
	tracking: 'text',
	lineHeight: 'text',
	ink: 'text',
	h: 'alignment',
	v: 'alignment',
	rotate: 'alignment',
	marginTop: 'margins',
	marginEnd: 'margins',
	marginBottom: 'margins',
	marginStart: 'margins',
	diagonalDown: 'linework',
	diagonalUp: 'linework'
};
export const LOOK_FIELDS = Object.keys(FIELD_ASPECT) as LookField[];

/** How a whole table shows: interned looks per cell, interned lines per unit edge. Arrays as in {@link Structure}. */
export interface Appearance {
	/** Look of each cell, by the cell's index in the grid. */
	readonly cellLook: Int32Array;
	readonly looks: readonly Look[];
	/** (rows + 1) × columns; −1 inside a merged cell. */
	readonly across: Int32Array;
	/** rows × (columns + 1); −1 inside a merged cell. */
	readonly down: Int32Array;
	/** null: nobody claims the edge. */
	readonly lines: readonly (Line | null)[];
}

/** The field that a leaf says as it stands; inks and fills are composed and stand apart. */
export const FIELD_OF: Readonly<Record<string, LookField>> = {
	'text.family': 'family',
	'text.size': 'size',
	'text.weight': 'weight',
	'text.italic': 'italic',
	'text.underline': 'underline',
	'text.case': 'case',
	'text.tracking': 'tracking',
	'text.lineHeight': 'lineHeight',
	'align.h': 'h',
	'align.v': 'v',
	rotate: 'rotate',
	'margin.top': 'marginTop',
	'margin.end': 'marginEnd',
	'margin.bottom': 'marginBottom',
	'margin.start': 'marginStart'
};
/** Fields that are lengths. */
export const LENGTH_FIELDS: ReadonlySet<LookField> = new Set([
	'size',
	'tracking',
	'marginTop',
	'marginEnd',
	'marginBottom',
	'marginStart'
]);

type Ink = (name: string | undefined) => Hex | undefined;
type Leaves = ReadonlyMap<string, { readonly value: LeafValue }>;

/**
 * The fill that shows: ink thinned by its tint, over whatever the parts below the one that set the ink paint
 * (`below` is that lower look), by its opacity; over paper at the bottom. Undefined where nobody says anything.
 */
function composedFill(leaves: Leaves, ink: Ink, below: () => Hex | 'none' | undefined): Hex | 'none' | undefined {
	const name = leaves.get('fill.ink')?.value;
	if (name === undefined) return undefined;
	if (name === 'none') return 'none';
	const tinted = mix(ink(String(name)) ?? BLACK, PAPER, Number(leaves.get('fill.tint')?.value ?? 1));
	const opacity = Number(leaves.get('fill.opacity')?.value ?? 1);
	if (opacity >= 1) return tinted;
	const base = below();
	return mix(tinted, base === undefined || base === 'none' ? PAPER : base, opacity);
}

export function computedLine(line: EdgeResult['line'], ink: Ink): Line | null {
	if (!line) return null;
	return {
		pattern: line.pattern,
		weight: line.pattern === 'none' ? (0 as Emu) : parseLength(line.weight ?? '0.5pt'),
		ink: ink(line.ink) ?? BLACK
	};
}

/** Computes the look of one set of winning leaves. */
export function computeLook(leaves: Leaves, ink: Ink, below: () => Hex | 'none' | undefined = () => undefined): Look {
	const look: Mutable<Look> = {};
	for (const [path, { value }] of leaves) {
		const field = FIELD_OF[path];
		if (field) Object.assign(look, { [field]: LENGTH_FIELDS.has(field) ? parseLength(String(value)) : value });
	}
	const fill = composedFill(leaves, ink, below);
	if (fill !== undefined) look.fill = fill;
	const textInk = ink(leaves.get('text.ink')?.value as string | undefined);
	if (textInk) look.ink = textInk;
	for (const place of ['diagonalDown', 'diagonalUp'] as const) {
		const pattern = leaves.get(`lines.${place}.pattern`)?.value as LinePattern | undefined;
		if (!pattern) continue;
		const weight = leaves.get(`lines.${place}.weight`)?.value;
		const own = leaves.get(`lines.${place}.ink`)?.value ?? leaves.get('text.ink')?.value;
		look[place] = computedLine(
			{
				pattern,
				...(weight !== undefined && { weight: String(weight) }),
				...(own !== undefined && { ink: String(own) })
			},
			ink
		);
	}
	return look;
}

/** What shows below the part that set a cell's fill ink: the same cascade without that part and those above it. */
function fillBelow(resolved: Resolved, signature: number, ink: Ink): Hex | 'none' | undefined {
	const slot = resolved.structure.cellSignature.indexOf(signature);
	const { columns } = resolved.structure.table;
	const trace = traceCell(resolved, Math.floor(slot / columns), slot % columns);
	const parts: Pick<Part, 'name' | 'rank'>[] = resolved.structure.signatures[signature]!.parts.slice();
	if (resolved.structure.signatures[signature]!.touched) parts.push({ name: 'touch', rank: 7 });
	const paint = (depth: number): Hex | 'none' | undefined => {
		const allowed = new Set(parts.slice(0, depth).map(({ name }) => name));
		const leaves = new Map<string, Decided>();
		for (const path of ['fill.ink', 'fill.tint', 'fill.opacity']) {
			const winner = trace.get(path)?.find(({ part }) => allowed.has(part));
			if (winner) leaves.set(path, winner);
		}
		const setter = leaves.get('fill.ink')?.part;
		return composedFill(leaves, ink, () => paint(parts.findIndex(({ name }) => name === setter)));
	};
	const top = trace.get('fill.ink')?.[0]?.part;
	return paint(parts.findIndex(({ name }) => name === top));
}

/** Looks worked out already; leaves are shared by all tables that a style resolves in the same way. */
const computed = new WeakMap<ReadonlyMap<string, Decided>, Look>();
const computedLines = new WeakMap<EdgeResult, Line | null>();

/** Rows that hold no figures of their column: no decimal mark to line up on (engine §7; they stand at the end), nothing to format. */
export const NO_FIGURES: ReadonlySet<string> = new Set(['title', 'header', 'group', 'note']);

/** Numbers equal things once, in the order in which they come; with the thing itself for its key, by identity. */
export class Interned<T> {
	readonly items: T[] = [];
	private readonly known = new Map<unknown, number>();
	add(item: T, key: unknown = JSON.stringify(item)): number {
		let index = this.known.get(key);
		if (index === undefined) {
			index = this.items.length;
			this.items.push(item);
			this.known.set(key, index);
		}
		return index;
	}
}

/** The signature of each cell, by the cell's index; where no cell is merged, cells and slots are one and the same. */
function cellSignatures({ table, cellSignature }: Structure): Int32Array {
	if (!table.merged.length) return cellSignature;
	const signatures = new Int32Array(table.cells.length);
	table.cells.forEach(({ r, c }, i) => (signatures[i] = cellSignature[r * table.columns + c]!));
	return signatures;
}

/**
 * The appearance of a resolved table. Aspects that the table does not carry are taken from `kept`, what the
 * table looked like before, and touches lie over them (engine §11, *Carry*).
 */
export function appearanceOf(resolved: Resolved, kept?: Appearance): Appearance {
	const { structure, style, house } = resolved;
	const { table } = structure;
	const ink: Ink = (name) => inkHex(name, style, house);
	const looks = resolved.leaves.map((leaves, signature) => {
		const known = computed.get(leaves);
		if (known) return known;
		let look = computeLook(leaves, ink, () => fillBelow(resolved, signature, ink));
		const holdsFigures = !structure.signatures[signature]!.parts.some(({ family }) => NO_FIGURES.has(family));
		if (look.h === 'decimal' && !holdsFigures) look = { ...look, h: 'end' };
		computed.set(leaves, look);
		return look;
	});
	const lines = resolved.edges.map((edge) => {
		let line = computedLines.get(edge);
		if (line === undefined) computedLines.set(edge, (line = computedLine(edge.line, ink)));
		return line;
	});
	const carried = new Set(table.carry);
	const notCarried = LOOK_FIELDS.filter((field) => !carried.has(FIELD_ASPECT[field]));
	const cellLook = cellSignatures(structure);
	if (!kept || notCarried.length === 0)
		return { cellLook, looks, across: structure.across, down: structure.down, lines };

	const interned = new Interned<Look>();
	const mixed = cellLook.map((signature, index) => {
		const before = kept.looks[kept.cellLook[index]!]!;
		const look: Mutable<Look> = { ...looks[signature]! };
		for (const field of notCarried)
			if (look[field] === undefined && before[field] !== undefined) Object.assign(look, { [field]: before[field] });
		return interned.add(look);
	});
	if (carried.has('linework'))
		return { cellLook: mixed, looks: interned.items, across: structure.across, down: structure.down, lines };
	const internedLines = new Interned<Line | null>();
	const keptLine = (own: Int32Array, before: Int32Array) =>
		own.map((edge, i) =>
			edge < 0 ? -1 : internedLines.add(lines[edge] ?? (before[i]! < 0 ? null : kept.lines[before[i]!]!))
		);
	const across = keptLine(structure.across, kept.across);
	const down = keptLine(structure.down, kept.down);
	return { cellLook: mixed, looks: interned.items, across, down, lines: internedLines.items };
}

/** The inks that a set of part settings names and that neither the style nor the house knows. */
export function unknownInks(resolved: { style: Resolved['style']; house: House }): string[] {
	const unknown = new Set<string>();
	const look = (leaves: ReadonlyMap<string, { value: LeafValue }>) => {
		for (const [path, { value }] of leaves)
			if (
				path.endsWith('ink') &&
				leafDefinition(path) &&
				value !== 'none' &&
				!inkHex(String(value), resolved.style, resolved.house)
			)
				unknown.add(String(value));
	};
	for (const leaves of resolved.style.parts.values()) look(leaves);
	for (const rule of resolved.style.rules) look(rule.leaves);
	return [...unknown];
}
