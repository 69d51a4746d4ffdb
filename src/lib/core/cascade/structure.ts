import type { FlatStyle } from '../style/inherit.ts';
import { leafDefinition } from '../properties/index.ts';
import { leavesOf } from '../style/leaves.ts';
import { kindPart, namedPart, parsePart, type Part } from '../style/parts.ts';
import type { LeafValue, LinePlace } from '../style/types.ts';
import type { Side, Table } from '../table/grid.ts';
import { splitRole, type Role, type RoleFamily } from '../roles/index.ts';
import { countRowStripes, countColumnStripes } from './bands.ts';
import { ruleHits } from './rules.ts';

/**
 * Which parts apply where: everything about a table's look that does not depend on what the parts say.
 * Cells and edges hold small integers; each stands for one *signature*, so that a change of the style
 * costs the number of signatures, not of cells (engine §10).
 */
export interface Structure {
	readonly table: Table;
	/** Signature of the cell that covers each slot; rows × columns. */
	readonly cellSignature: Int32Array;
	/** Edge signature above each slot, and below the last row; (rows + 1) × columns. −1 inside a merged cell. */
	readonly across: Int32Array;
	/** Edge signature before each slot, and after the last column; rows × (columns + 1). −1 inside a merged cell. */
	readonly down: Int32Array;
	readonly signatures: readonly Signature[];
	readonly edges: readonly EdgeSignature[];
	/** What of the style this rests on; an equal key means that the structure can be kept. */
	readonly key: string;
}

export interface Signature {
	/** Equal for equal parts and touches, in whatever table. */
	readonly key: string;
	/** A number for the key; each number stands for one key only. */
	readonly id: number;
	/** The parts that rule the cell, weakest first; rank VII not among them. */
	readonly parts: readonly Part[];
	/** Leaves that touches set on the cell. */
	readonly touched: ReadonlyMap<string, LeafValue> | null;
}

export interface EdgeSignature {
	readonly horizontal: boolean;
	/** Signatures of the cells above/before and below/after; −1 at the rim. */
	readonly before: number;
	readonly after: number;
	/** Whether both cells stand in one stripe of the row (column) bands. */
	readonly sameRowStripe: boolean;
	readonly sameColumnStripe: boolean;
	/** `pattern`, `weight`, `ink` that touches set on the edge. */
	readonly touched: ReadonlyMap<string, LeafValue> | null;
}

/** What an edge is beside its two cells, as a number below 8. */
export const edgeFlags = (edge: Pick<EdgeSignature, 'horizontal' | 'sameRowStripe' | 'sameColumnStripe'>): number =>
	(edge.horizontal ? 1 : 0) + (edge.sameRowStripe ? 2 : 0) + (edge.sameColumnStripe ? 4 : 0);

interface RowClass {
	readonly family: RoleFamily;
	readonly level: number;
	readonly role: Role;
	readonly stripe: number;
}
interface ColumnClass {
	readonly kind: Table['columnInfo'][number]['kind'];
	readonly named: string | null;
	readonly first: boolean;
	readonly last: boolean;
	readonly stripe: number;
}

/** Numbers distinct things in the order in which they come. */
class Numbering<T> {
	readonly items: T[] = [];
	private readonly known = new Map<string | number, number>();
	number(key: string | number, make: () => T): number {
		let index = this.known.get(key);
		if (index === undefined) {
			index = this.items.length;
			this.known.set(key, index);
			this.items.push(make());
		}
		return index;
	}
}

/** Column names and touches come from files: what is remembered of signatures stays bounded. */
const MOST_SIGNATURES = 20_000;
const signatureIds = new Map<string, number>();
let lastId = 0;

export function signatureOf(parts: readonly Part[], touched: Signature['touched']): Signature {
	const key = parts.map(({ name }) => name).join() + (touched ? JSON.stringify([...touched]) : '');
	let id = signatureIds.get(key);
	if (id === undefined) {
		if (signatureIds.size > MOST_SIGNATURES) signatureIds.clear();
		signatureIds.set(key, (id = ++lastId));
	}
	return { key, id, parts, touched };
}

const part = (name: string): Part => parsePart(name)!;

const madeSignatures = new Map<string, Signature>();

/** The signature of an ordinary cell; the same object for equal rows and columns of any table. */
function plainSignature(row: RowClass, column: ColumnClass): Signature {
	const key = `${row.family}:${row.level}:${row.stripe}|${columnKey(column)}`;
	let signature = madeSignatures.get(key);
	if (!signature) {
		if (madeSignatures.size > MOST_SIGNATURES) madeSignatures.clear();
		madeSignatures.set(key, (signature = signatureOf(partsFor(row, column), null)));
	}
	return signature;
}

const columnKey = ({ kind, named, first, last, stripe }: ColumnClass): string =>
	`${kind}:${stripe}:${first ? 'f' : ''}${last ? 'l' : ''}:${named ?? ''}${named === null ? '' : '"'}`;

/** The parts of ranks I–V for a cell of this row and column (engine §4), weakest first. */
function partsFor(row: RowClass, column: ColumnClass): Part[] {
	const names: string[] = ['ground'];
	const { family, level, role } = row;
	if (column.stripe && role.inColumnBands) names.push(`columnBand:${column.stripe}`);
	if (row.stripe) names.push(`rowBand:${row.stripe}`);
	if (role.inColumns) {
		names.push(kindPart(column.kind));
		if (column.named !== null) names.push(namedPart(column.named));
		if (column.first) names.push('firstColumn');
		if (column.last) names.push('lastColumn');
	}
	if (role.part) names.push(family);
	if (role.levels) names.push(`${family}:${level}`);
	if (role.corners && column.first) names.push(`corner:${role.corners}-first`);
	if (role.corners && column.last) names.push(`corner:${role.corners}-last`);
	return names.map(part);
}

interface StyleKey {
	/** The column names that parts of the style speak of. */
	readonly named: ReadonlySet<string>;
	readonly key: string;
}
const styleKeys = new WeakMap<FlatStyle, StyleKey>();

/** What of a style structures rest on, as a string to compare. */
function styleKey(style: FlatStyle): StyleKey {
	let made = styleKeys.get(style);
	if (!made) {
		const named = [...style.parts.keys()]
			.filter((name) => name.startsWith('columns:"'))
			.map((name) => name.slice(9, -1));
		const rules = style.rules.map(({ name, where, extends: reach, off }) => [name, where, reach, off]);
		made = { named: new Set(named), key: JSON.stringify([style.reading, style.bands, named, rules]) };
		styleKeys.set(style, made);
	}
	return made;
}

/** What {@link structureOf} rests on, as a string to compare. */
export const structureKey = (style: FlatStyle): string => styleKey(style).key;

const SIDE_OF: Partial<Record<LinePlace, Side>> = {
	top: 'top',
	bottom: 'bottom',
	start: 'start',
	end: 'end'
};

/** Classifies every cell and edge of a table. Cost: rows × columns small-integer writes, plus the irregular cells. */
export function structureOf(table: Table, style: FlatStyle): Structure {
	const { rows, columns } = table;
	const { named } = styleKey(style);
	const rowStripes = countRowStripes(table, style);
	const columnStripes = countColumnStripes(table, style);

	const rowClasses = new Numbering<RowClass>();
	const rowClass = Int32Array.from(table.roles, (role, r) => {
		const stripe = rowStripes.number[r]!;
		return rowClasses.number(`${role} ${stripe}`, () => ({ ...splitRole(role), stripe }));
	});
	const columnClasses = new Numbering<ColumnClass>();
	const columnClass = Int32Array.from(table.columnInfo, ({ kind, name }, c) => {
		const value: ColumnClass = {
			kind,
			named: named.has(name) ? name : null,
			first: c < table.firstColumns,
			last: c >= columns - table.lastColumns,
			stripe: columnStripes.number[c]!
		};
		return columnClasses.number(columnKey(value), () => value);
	});

	const signatures = new Numbering<Signature>();
	const plain = (rowKind: number, columnKind: number) =>
		signatures.number(rowKind * columnClasses.items.length + columnKind, () =>
			plainSignature(rowClasses.items[rowKind]!, columnClasses.items[columnKind]!)
		);
	const edges = new Numbering<EdgeSignature>();
	const edge = (
		horizontal: boolean,
		before: number,
		after: number,
		sameRowStripe: boolean,
		sameColumnStripe: boolean,
		touched: ReadonlyMap<string, LeafValue> | null = null
	) => {
		const flags = edgeFlags({ horizontal, sameRowStripe, sameColumnStripe });
		const key = ((before + 1) * 2 ** 22 + after + 1) * 8 + flags;
		return edges.number(touched ? `${key} ${JSON.stringify([...touched])}` : key, () => ({
			horizontal,
			before,
			after,
			sameRowStripe,
			sameColumnStripe,
			touched
		}));
	};

	// The regular part: a row's class and a column's class decide everything. Rows of a class are copies of one.
	const cellSignature = new Int32Array(rows * columns);
	const across = new Int32Array((rows + 1) * columns);
	const down = new Int32Array(rows * (columns + 1));
	const kinds = columnClasses.items.length;
	const signatureTable = rowClasses.items.map((_, rowKind) =>
		Int32Array.from(columnClasses.items, (_, columnKind) => plain(rowKind, columnKind))
	);
	const cellRows = signatureTable.map((row) => columnClass.map((kind) => row[kind]!));
	const boundaries = new Numbering<{ before: number; after: number; same: boolean }>();
	const columnBoundary = Int32Array.from({ length: columns + 1 }, (_, c) => {
		const before = c > 0 ? columnClass[c - 1]! : -1;
		const after = c < columns ? columnClass[c]! : -1;
		const same = c > 0 && c < columns && columnStripes.instance[c - 1] === columnStripes.instance[c];
		return boundaries.number(`${before},${after},${same}`, () => ({ before, after, same }));
	});
	const downRows = signatureTable.map((row) => {
		const byBoundary = boundaries.items.map(({ before, after, same }) =>
			edge(false, before < 0 ? -1 : row[before]!, after < 0 ? -1 : row[after]!, true, same)
		);
		return columnBoundary.map((boundary) => byBoundary[boundary]!);
	});
	const acrossRows = new Numbering<Int32Array>();
	const outside = rowClasses.items.length;
	for (let r = 0; r <= rows; r++) {
		const before = r > 0 ? rowClass[r - 1]! : outside;
		const after = r < rows ? rowClass[r]! : outside;
		const same = r > 0 && r < rows && rowStripes.instance[r - 1] === rowStripes.instance[r];
		const row = acrossRows.number((before * (outside + 1) + after) * 2 + Number(same), () => {
			const byKind = Int32Array.from({ length: kinds }, (_, kind) =>
				edge(true, signatureTable[before]?.[kind] ?? -1, signatureTable[after]?.[kind] ?? -1, same, true)
			);
			return columnClass.map((kind) => byKind[kind]!);
		});
		across.set(acrossRows.items[row]!, r * columns);
		if (r === rows) break;
		cellSignature.set(cellRows[after]!, r * columns);
		down.set(downRows[after]!, r * (columns + 1));
	}

	// The irregular part: merged cells, cells that rules hit, touches.
	const hits = ruleHits(table, style);
	const touchedCells = new Map<number, Map<string, LeafValue>>();
	const touchedAcross = new Map<number, Map<string, LeafValue>>();
	const touchedDown = new Map<number, Map<string, LeafValue>>();
	const leavesAt = (map: Map<number, Map<string, LeafValue>>, key: number) => {
		let leaves = map.get(key);
		if (!leaves) map.set(key, (leaves = new Map()));
		return leaves;
	};
	for (const touch of table.touches) {
		if (touch.r >= rows || touch.c >= columns) continue;
		const slot = touch.r * columns + touch.c;
		for (const [path, value] of leavesOf(touch.set)) {
			const { place, property = '' } = leafDefinition(path)!.edge ?? {};
			const side = place && SIDE_OF[place];
			if (!side) leavesAt(touchedCells, table.slots[slot]!).set(path, value);
			else if (side === 'top' || side === 'bottom')
				leavesAt(touchedAcross, side === 'top' ? slot : slot + columns).set(property, value);
			else leavesAt(touchedDown, touch.r * (columns + 1) + touch.c + (side === 'start' ? 0 : 1)).set(property, value);
		}
	}

	const irregular = new Set<number>([...table.merged, ...hits.keys(), ...touchedCells.keys()]);
	for (const index of irregular) {
		const cell = table.cells[index]!;
		const base = signatureTable[rowClass[cell.r]!]![columnClass[cell.c]!]!;
		const rules = hits.get(index) ?? [];
		const touched = touchedCells.get(index) ?? null;
		const signature =
			rules.length || touched
				? signatures.number(
						`${base} ${rules.map((rule) => rule.order)} ${touched ? JSON.stringify([...touched]) : ''}`,
						() => signatureOf([...signatures.items[base]!.parts, ...rules], touched)
					)
				: base;
		for (let r = cell.r; r < cell.r + cell.rows; r++)
			cellSignature.fill(signature, r * columns + cell.c, r * columns + cell.c + cell.cols);
	}

	/** Any edge by its two slots; −1 for a slot outside. The slow way, for the irregular ones only. */
	const edgeBetween = (
		horizontal: boolean,
		before: number,
		after: number,
		touched: Map<string, LeafValue> | undefined
	) => {
		const first = before < 0 ? undefined : table.cells[table.slots[before]!]!;
		const second = after < 0 ? undefined : table.cells[table.slots[after]!]!;
		if (first === second) return -1;
		return edge(
			horizontal,
			before < 0 ? -1 : cellSignature[before]!,
			after < 0 ? -1 : cellSignature[after]!,
			!!first && !!second && rowStripes.instance[first.r] === rowStripes.instance[second.r],
			!!first && !!second && columnStripes.instance[first.c] === columnStripes.instance[second.c],
			touched ?? null
		);
	};
	const redoAcross = (r: number, c: number) => {
		const place = r * columns + c;
		across[place] = edgeBetween(true, r > 0 ? place - columns : -1, r < rows ? place : -1, touchedAcross.get(place));
	};
	const redoDown = (r: number, c: number) => {
		const place = r * (columns + 1) + c;
		const slot = r * columns + c;
		down[place] = edgeBetween(false, c > 0 ? slot - 1 : -1, c < columns ? slot : -1, touchedDown.get(place));
	};
	for (const index of irregular) {
		const cell = table.cells[index]!;
		for (let r = cell.r; r <= cell.r + cell.rows; r++)
			for (let c = cell.c; c < cell.c + cell.cols; c++) redoAcross(r, c);
		for (let r = cell.r; r < cell.r + cell.rows; r++) for (let c = cell.c; c <= cell.c + cell.cols; c++) redoDown(r, c);
	}
	for (const place of touchedAcross.keys()) redoAcross(Math.floor(place / columns), place % columns);
	for (const place of touchedDown.keys()) redoDown(Math.floor(place / (columns + 1)), place % (columns + 1));

	return {
		table,
		cellSignature,
		across,
		down,
		signatures: signatures.items,
		edges: edges.items,
		key: structureKey(style)
	};
}
