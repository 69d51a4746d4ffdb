import { inkOf, NO_HOUSE, typeRoleOf, type House } from '../house.ts';
import { BLACK, luminance, toHex, type Hex } from '../colour.ts';
import { type FlatStyle, type SetLeaf } from '../style/inherit.ts';
import { DEFAULT_LINE_WEIGHT } from '../properties/defaults.ts';
import { LEAVES, leafDefinition } from '../properties/index.ts';
import { TYPE_ROLE_LEAVES } from '../style/leaves.ts';
import { isPartOff, parsePart, type Part, type Rank } from '../style/parts.ts';
import {
	ASPECTS,
	LINE_PATTERNS,
	type Aspect,
	type LeafValue,
	type LinePattern,
	type LinePlace
} from '../style/types.ts';
import type { Side, Table } from '../table/grid.ts';
import { parseLength, type Emu } from '../units.ts';
import {
	edgeFlags,
	signatureOf,
	structureKey,
	structureOf,
	type EdgeSignature,
	type Signature,
	type Structure
} from './structure.ts';

/** One leaf as decided: its value as the style wrote it, and who set it. `style` is null for a touch. */
export interface Decided {
	readonly value: LeafValue;
	readonly rank: Rank;
	readonly part: string;
	readonly style: string | null;
}

/** What an edge shows. Values as the style wrote them; `line` is null where nobody claims. */
export interface EdgeResult {
	readonly line: { readonly pattern: LinePattern; readonly weight?: string; readonly ink?: string } | null;
	readonly rank: Rank | null;
	readonly part: string | null;
	readonly style: string | null;
}

/** A table's resolved look: the structure, and one result per signature. */
export interface Resolved {
	readonly structure: Structure;
	readonly style: FlatStyle;
	readonly house: House;
	/** Per cell signature: the winning leaf of each path. */
	readonly leaves: readonly ReadonlyMap<string, Decided>[];
	/** Per edge signature. */
	readonly edges: readonly EdgeResult[];
}

/** A part's statements, sorted by what they are about. */
interface Sayings {
	readonly cell: [path: string, decided: Decided][];
	readonly lines: Map<string, [property: string, leaf: RankedLeaf][]>;
}

/** What one part says in one table: its leaves, with the aspects not carried left out and its type role opened. */
type Statements = ReadonlyMap<string, SetLeaf>;

/**
 * Resolves one style for all tables that use the same parts and carry the same aspects; remembers what each part
 * says, each signature and each edge, so that the tables of a document share the work.
 */
class Resolver {
	private readonly cells = new Map<string, ReadonlyMap<string, Decided>>();
	private readonly shown = new Map<string, EdgeResult>();
	private readonly off: ReadonlySet<string>;
	private readonly carry: ReadonlySet<Aspect>;
	private readonly said = new Map<string, Statements>();
	private readonly sorted = new Map<string, Sayings>();
	private constructor(
		private readonly style: FlatStyle,
		private readonly house: House,
		table: Pick<Table, 'partsOff' | 'carry'>
	) {
		this.off = new Set(table.partsOff);
		this.carry = new Set(table.carry);
	}

	static for(style: FlatStyle, house: House, table: Pick<Table, 'partsOff' | 'carry'>): Resolver {
		let byHouse = resolvers.get(style);
		if (!byHouse) resolvers.set(style, (byHouse = new WeakMap()));
		let byTable = byHouse.get(house);
		if (!byTable) byHouse.set(house, (byTable = new Map()));
		const key = `${table.partsOff.join()};${table.carry.join()}`;
		let resolver = byTable.get(key);
		if (!resolver) byTable.set(key, (resolver = new Resolver(style, house, table)));
		return resolver;
	}

	private open(leaves: ReadonlyMap<string, SetLeaf>): Statements {
		const out = new Map<string, SetLeaf>();
		const role = leaves.get('text.role');
		if (role) {
			const opened = this.style.typeRoles.get(String(role.value)) ?? typeRoleOf(this.house, String(role.value));
			for (const name of TYPE_ROLE_LEAVES) {
				const value = opened?.[name];
				if (value !== undefined) out.set(`text.${name}`, { value, style: role.style });
			}
		}
		for (const [path, leaf] of leaves) out.set(path, leaf);
		if (this.carry.size === ASPECTS.length) return out;
		for (const path of out.keys()) {
			const aspect = leafDefinition(path)!.aspect;
			if (aspect && !this.carry.has(aspect)) out.delete(path);
		}
		return out;
	}

	statements(part: Part): Statements {
		let statements = this.said.get(part.name);
		if (!statements) {
			const leaves = part.name.startsWith('rule:')
				? this.style.rules.find((rule) => rule.name === part.name.slice(5))?.leaves
				: this.style.parts.get(part.name);
			statements = leaves && !isPartOff(part.name, this.off) ? this.open(leaves) : new Map();
			this.said.set(part.name, statements);
		}
		return statements;
	}

	/** What a part says of the cells it rules, and of lines by place; most parts say nothing of those. */
	private capabilities(part: Part): Sayings {
		let capabilities = this.sorted.get(part.name);
		if (!capabilities) {
			const cell: Sayings['cell'] = [];
			const lines: Sayings['lines'] = new Map();
			for (const [path, { value, style }] of this.statements(part)) {
				const decided = { value, rank: part.rank, part: part.name, style };
				const line = EDGE_LEAVES.get(path);
				if (line) {
					const ranked: RankedLeaf = { ...decided, order: part.order };
					const known = lines.get(line.place);
					if (known) known.push([line.property, ranked]);
					else lines.set(line.place, [[line.property, ranked]]);
				} else cell.push([path, decided]);
			}
			this.sorted.set(part.name, (capabilities = { cell, lines }));
		}
		return capabilities;
	}

	/** What touches say, with type roles opened; touches are the table's own and always carried. */
	touched(leaves: ReadonlyMap<string, LeafValue>): Map<string, LeafValue> {
		const out = new Map<string, LeafValue>();
		const role = leaves.get('text.role');
		const opened =
			role === undefined ? undefined : (this.style.typeRoles.get(String(role)) ?? typeRoleOf(this.house, String(role)));
		for (const name of TYPE_ROLE_LEAVES) if (opened?.[name] !== undefined) out.set(`text.${name}`, opened[name]);
		for (const [path, value] of leaves) out.set(path, value);
		return out;
	}

	cell(signature: Signature): ReadonlyMap<string, Decided> {
		let leaves = this.cells.get(signature.key);
		if (!leaves) this.cells.set(signature.key, (leaves = this.decide(signature)));
		return leaves;
	}

	private decide(signature: Signature): Map<string, Decided> {
		const leaves = new Map<string, Decided>();
		for (const part of signature.parts)
			for (const [path, decided] of this.capabilities(part).cell) leaves.set(path, decided);
		if (signature.touched)
			for (const [path, value] of this.touched(signature.touched))
				leaves.set(path, { value, rank: 7, part: 'touch', style: null });
		return leaves;
	}

	/** Everybody who has a say on each leaf of a cell, winner first. */
	trace(signature: Signature): Map<string, Decided[]> {
		const trace = new Map<string, Decided[]>();
		const add = (path: string, decided: Decided) => trace.set(path, [decided, ...(trace.get(path) ?? [])]);
		for (const part of signature.parts) for (const [path, decided] of this.capabilities(part).cell) add(path, decided);
		if (signature.touched)
			for (const [path, value] of this.touched(signature.touched))
				add(path, { value, rank: 7, part: 'touch', style: null });
		return trace;
	}

	/** What one part of a cell says of one of its sides. */
	private sideSayings(part: Part, edge: EdgeSignature, side: 'before' | 'after', beyond: Signature | undefined) {
		const { lines } = this.capabilities(part);
		return lines.size === 0 ? NO_SAYINGS : (lines.get(linePlaceOf(part, edge, side, beyond)) ?? NO_SAYINGS);
	}

	/** Everybody who speaks of the `pattern`, `weight` and `ink` of a cell's side, winner first. */
	claimLeaves(
		edge: EdgeSignature,
		signatures: readonly Signature[],
		side: 'before' | 'after'
	): Map<string, RankedLeaf[]> {
		const beyond = signatures[edge[side === 'before' ? 'after' : 'before']];
		const leaves = new Map<string, RankedLeaf[]>();
		const add = (property: string, leaf: RankedLeaf) => leaves.set(property, [leaf, ...(leaves.get(property) ?? [])]);
		for (const part of signatures[edge[side]]!.parts)
			for (const [property, leaf] of this.sideSayings(part, edge, side, beyond)) add(property, leaf);
		for (const [property, value] of edge.touched ?? []) add(property, touchLeaf(value));
		return leaves;
	}

	/** What a cell claims for one of its sides (engine §5.1); null where no pattern comes from anywhere. */
	private claim(edge: EdgeSignature, signatures: readonly Signature[], side: 'before' | 'after'): Claim | null {
		if (edge[side] < 0) return null;
		const own = signatures[edge[side]]!;
		const beyond = signatures[edge[side === 'before' ? 'after' : 'before']];
		const winners: { [property: string]: RankedLeaf } = {};
		for (const part of own.parts)
			for (const [property, leaf] of this.sideSayings(part, edge, side, beyond)) winners[property] = leaf;
		for (const [property, value] of edge.touched ?? []) winners[property] = touchLeaf(value);
		const { pattern } = winners;
		if (!pattern) return null;
		let strongest = pattern;
		for (const property in winners) {
			const winner = winners[property]!;
			if (winner.rank > strongest.rank || (winner.rank === strongest.rank && winner.order > strongest.order))
				strongest = winner;
		}
		const weight = String(winners.weight?.value ?? DEFAULT_LINE_WEIGHT);
		const ink = winners.ink?.value ?? this.cell(own).get('text.ink')?.value;
		return {
			pattern: pattern.value as LinePattern,
			weight,
			thickness: pattern.value === 'none' ? (0 as Emu) : parseLength(weight),
			ink: ink === undefined ? undefined : String(ink),
			from: strongest
		};
	}

	edge(edge: EdgeSignature, signatures: readonly Signature[]): EdgeResult {
		const { touched } = edge;
		const sides = `${signatures[edge.before]?.id ?? 0} ${signatures[edge.after]?.id ?? 0}`;
		const key = `${sides} ${edgeFlags(edge)}${touched ? JSON.stringify([...touched]) : ''}`;
		let result = this.shown.get(key);
		if (!result) this.shown.set(key, (result = this.decideEdge(edge, signatures)));
		return result;
	}

	private decideEdge(edge: EdgeSignature, signatures: readonly Signature[]): EdgeResult {
		const before = this.claim(edge, signatures, 'before');
		const after = this.claim(edge, signatures, 'after');
		const winner = before && after ? this.stronger(before, after, edge.horizontal) : (before ?? after);
		if (!winner) return { line: null, rank: null, part: null, style: null };
		const { rank, part, style } = winner.from;
		if (winner.pattern === 'none') return { line: { pattern: 'none' }, rank, part, style };
		const line = {
			pattern: winner.pattern,
			weight: winner.weight,
			...(winner.ink !== undefined && { ink: winner.ink })
		};
		return { line, rank, part, style };
	}

	/** The stronger of two claims (engine §5.2). The winning claim wins whole. */
	private stronger(before: Claim, after: Claim, horizontal: boolean): Claim {
		const difference =
			before.from.rank - after.from.rank ||
			before.from.order - after.from.order ||
			before.thickness - after.thickness ||
			LINE_PATTERNS.indexOf(after.pattern) - LINE_PATTERNS.indexOf(before.pattern) ||
			(before.ink === after.ink ? 0 : luminance(this.ink(after.ink)) - luminance(this.ink(before.ink)));
		if (difference !== 0) return difference > 0 ? before : after;
		return horizontal && this.style.reading === 'up' ? after : before;
	}

	private ink(name: string | undefined): Hex {
		return inkHex(name, this.style, this.house) ?? BLACK;
	}
}

/** Which of a part's lines an edge is for the cell on one side: its outside or its inside, as the cell beyond belongs to its block or not. */
function linePlaceOf(
	part: Part,
	edge: EdgeSignature,
	side: 'before' | 'after',
	beyond: Signature | undefined
): LinePlace {
	const inside =
		!!beyond &&
		beyond.parts.some(({ name }) => name === part.name) &&
		(part.family !== 'rowBand' || edge.sameRowStripe) &&
		(part.family !== 'columnBand' || edge.sameColumnStripe);
	if (edge.horizontal) return inside ? 'betweenRows' : side === 'before' ? 'bottom' : 'top';
	return inside ? 'betweenColumns' : side === 'before' ? 'end' : 'start';
}

/** Every part that could speak of an edge, with which of its lines the edge is; strongest first. */
export function edgeParts(structure: Structure, index: number): { part: Part; place: LinePlace }[] {
	const edge = structure.edges[index];
	if (!edge) return [];
	const found = new Map<string, { part: Part; place: LinePlace }>();
	for (const side of ['before', 'after'] as const) {
		const beyond = structure.signatures[edge[side === 'before' ? 'after' : 'before']];
		for (const part of structure.signatures[edge[side]]?.parts ?? []) {
			const place = linePlaceOf(part, edge, side, beyond);
			found.set(`${part.name} ${place}`, { part, place });
		}
	}
	return [...found.values()].sort((a, b) => b.part.rank - a.part.rank || b.part.order - a.part.order);
}

const resolvers = new WeakMap<FlatStyle, WeakMap<House, Map<string, Resolver>>>();

/** Leaves that are about edges and not about the cell itself (as diagonals are): place and property by path. */
const EDGE_LEAVES = new Map(LEAVES.flatMap(({ path, edge }) => (edge ? [[path, edge] as const] : [])));

const NO_SAYINGS: readonly [property: string, leaf: RankedLeaf][] = [];
const touchLeaf = (value: LeafValue): RankedLeaf => ({ value, rank: 7, order: 0, part: 'touch', style: null });

interface RankedLeaf extends Decided {
	readonly order: number;
}
interface Claim {
	readonly pattern: LinePattern;
	readonly weight: string;
	readonly thickness: Emu;
	readonly ink: string | undefined;
	readonly from: RankedLeaf;
}

/** The sRGB of an ink: the style's own, else the house's, else a hex value as it stands; undefined where nobody knows it. */
export function inkHex(name: string | undefined, style: FlatStyle, house: House): Hex | undefined {
	if (name === undefined || name === 'none') return undefined;
	return toHex(style.inks.get(name) ?? inkOf(house, name) ?? (name.startsWith('#') ? name : 'not a colour'));
}

function resolveOn(structure: Structure, style: FlatStyle, house: House): Resolved {
	const resolver = Resolver.for(style, house, structure.table);
	const leaves = structure.signatures.map((signature) => resolver.cell(signature));
	const edges = structure.edges.map((edge) => resolver.edge(edge, structure.signatures));
	return { structure, style, house, leaves, edges };
}

/** Decides every cell and every edge of a table by a style (engine §§4, 5). */
export function resolve(table: Table, style: FlatStyle, house: House = NO_HOUSE): Resolved {
	return resolveOn(structureOf(table, style), style, house);
}

/** The same table in a changed style: keeps the structure where the change allows it. */
export function restyle(before: Resolved, style: FlatStyle, house: House = before.house): Resolved {
	const kept = structureKey(style) === before.structure.key;
	return kept ? resolveOn(before.structure, style, house) : resolve(before.structure.table, style, house);
}

/** The trace of the cell that covers slot (r, c): for each leaf everybody who set it, winner first. */
export function traceCell(resolved: Resolved, r: number, c: number): Map<string, Decided[]> {
	const { structure, style, house } = resolved;
	const signature = structure.signatures[structure.cellSignature[r * structure.table.columns + c]!]!;
	return Resolver.for(style, house, structure.table).trace(signature);
}

/** The edge signature on one side of slot (r, c); −1 inside a merged cell. */
export function edgeAt(structure: Structure, r: number, c: number, side: Side): number {
	const { columns } = structure.table;
	if (side === 'top' || side === 'bottom') return structure.across[(r + (side === 'bottom' ? 1 : 0)) * columns + c]!;
	return structure.down[r * (columns + 1) + c + (side === 'end' ? 1 : 0)]!;
}

/** The trace of one edge: the result, and for each of the two cells and each line property everybody who spoke. */
export function traceEdge(resolved: Resolved, r: number, c: number, side: Side) {
	const { structure, style, house } = resolved;
	const index = edgeAt(structure, r, c, side);
	const edge = structure.edges[index];
	if (!edge) return undefined;
	const resolver = Resolver.for(style, house, structure.table);
	const claims = (['before', 'after'] as const)
		.filter((which) => edge[which] >= 0)
		.map((which) => resolver.claimLeaves(edge, structure.signatures, which));
	return { result: resolved.edges[index]!, claims };
}

/** What the named parts of ranks I–V, taken together and weakest first, say of cells they all rule. */
export function resolveParts(style: FlatStyle, house: House, table: Table, names: readonly string[]) {
	const resolver = Resolver.for(style, house, table);
	const parts = names.flatMap((name) => parsePart(name) ?? []);
	const statements = (name: string): Statements => {
		const part = parsePart(name);
		return part ? resolver.statements(part) : new Map();
	};
	return { leaves: resolver.cell(signatureOf(parts, null)), statements };
}
