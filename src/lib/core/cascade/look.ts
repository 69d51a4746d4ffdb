import type { House } from '../house.ts';
import type { Hex } from '../colour.ts';
import { composedFill } from '../properties/fill.ts';
import { FIELDS, fieldDefinition, fieldsOfLeaf, isInkLeaf, type Look } from '../properties/index.ts';
import { computedLine, type Line } from '../properties/line.ts';
import { computeShadow, type Shadow } from '../properties/shadow.ts';
import { TABLE_SHADOW } from '../properties/table-shadow.ts';
import { ROLES } from '../roles/index.ts';
import type { Part } from '../style/parts.ts';
import type { LeafValue } from '../style/types.ts';
import { inkHex, traceCell, type Decided, type EdgeResult, type Resolved } from './resolve.ts';
import type { Structure } from './structure.ts';

export { LOOK_FIELDS, type Look, type LookField } from '../properties/index.ts';
export { computedLine, type Line } from '../properties/line.ts';

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

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
	/** The table's own, outside its rim; absent where nobody says anything. */
	readonly shadow?: Shadow | null;
}

type Ink = (name: string | undefined) => Hex | undefined;
type Leaves = ReadonlyMap<string, { readonly value: LeafValue }>;

/** Computes the look of one set of winning leaves. */
export function computeLook(leaves: Leaves, ink: Ink, below: () => Hex | 'none' | undefined = () => undefined): Look {
	const look: Record<string, unknown> = {};
	const computing = { ink, below };
	for (const path of leaves.keys())
		for (const field of fieldsOfLeaf(path)) {
			if (field.name in look) continue;
			const value = field.compute(leaves, computing);
			if (value !== undefined) look[field.name] = value;
		}
	return look as Look;
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
		for (const path of fieldDefinition('fill').leaves) {
			const winner = trace.get(path)?.find(({ part }) => allowed.has(part));
			if (winner) leaves.set(path, winner);
		}
		const setter = leaves.get('fill.ink')?.part;
		return composedFill(leaves, { ink, below: () => paint(parts.findIndex(({ name }) => name === setter)) });
	};
	const top = trace.get('fill.ink')?.[0]?.part;
	return paint(parts.findIndex(({ name }) => name === top));
}

/** Looks worked out already; leaves are shared by all tables that a style resolves in the same way. */
const computed = new WeakMap<ReadonlyMap<string, Decided>, Look>();
const computedLines = new WeakMap<EdgeResult, Line | null>();

const NO_FIGURES: ReadonlySet<string> = new Set(
	ROLES.filter(({ holdsFigures }) => !holdsFigures).map(({ family }) => family)
);

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
		// Rows without figures have no decimal mark to line up on: their text stands at the end.
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
	const notCarried = FIELDS.flatMap(({ name, aspect }) => (carried.has(aspect) ? [] : [name]));
	const cellLook = cellSignatures(structure);
	const { across: acrossNow, down: downNow } = structure;
	const own = resolved.leaves[0] && computeShadow(resolved.leaves[0], TABLE_SHADOW, { ink });
	const shadow = own === undefined && !carried.has('fill') ? kept?.shadow : own;
	const ofTable = shadow === undefined ? {} : { shadow };
	if (!kept || notCarried.length === 0) return { cellLook, looks, across: acrossNow, down: downNow, lines, ...ofTable };

	const interned = new Interned<Look>();
	const mixed = cellLook.map((signature, index) => {
		const before = kept.looks[kept.cellLook[index]!]!;
		const look: Mutable<Look> = { ...looks[signature]! };
		for (const field of notCarried)
			if (look[field] === undefined && before[field] !== undefined) Object.assign(look, { [field]: before[field] });
		return interned.add(look);
	});
	if (carried.has('linework'))
		return { cellLook: mixed, looks: interned.items, across: acrossNow, down: downNow, lines, ...ofTable };
	const internedLines = new Interned<Line | null>();
	const keptLine = (own: Int32Array, before: Int32Array) =>
		own.map((edge, i) =>
			edge < 0 ? -1 : internedLines.add(lines[edge] ?? (before[i]! < 0 ? null : kept.lines[before[i]!]!))
		);
	const across = keptLine(acrossNow, kept.across);
	const down = keptLine(downNow, kept.down);
	return { cellLook: mixed, looks: interned.items, across, down, lines: internedLines.items, ...ofTable };
}

/** The inks that a set of part settings names and that neither the style nor the house knows. */
export function unknownInks(resolved: { style: Resolved['style']; house: House }): string[] {
	const unknown = new Set<string>();
	const look = (leaves: ReadonlyMap<string, { value: LeafValue }>) => {
		for (const [path, { value }] of leaves)
			if (isInkLeaf(path) && value !== 'none' && !inkHex(String(value), resolved.style, resolved.house))
				unknown.add(String(value));
	};
	for (const leaves of resolved.style.parts.values()) look(leaves);
	for (const rule of resolved.style.rules) look(rule.leaves);
	return [...unknown];
}
