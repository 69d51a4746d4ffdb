import { inkNames, type House } from '../house.ts';
import type { Hex } from '../colour.ts';
import { appearanceOf, type Appearance, type Line, type LookField } from '../cascade/look.ts';
import { FIELDS } from '../properties/index.ts';
import type { Field } from '../properties/property.ts';
import { liftShadow, sameShown } from '../properties/shadow.ts';
import { TABLE_SHADOW } from '../properties/table-shadow.ts';
import { edgeParts, resolve } from '../cascade/resolve.ts';
import { structureOf, type Structure } from '../cascade/structure.ts';
import { flatten } from '../style/inherit.ts';
import { leavesOf, withLeaf } from '../style/leaves.ts';
import { comparePartNames } from '../style/parts.ts';
import type { LeafValue, PartSettings, Style, TypeRole } from '../style/types.ts';
import { ASPECTS } from '../style/types.ts';
import type { Table, Touch } from '../table/grid.ts';
import { exactLength, type Emu } from '../units.ts';
import { choose, type Demand } from './choose.ts';

/** A style found in a table that is already formatted (engine §9). */
export interface Lifted {
	readonly style: Style;
	/** What the style does not say, as settings of single cells and edges. */
	readonly touches: readonly Touch[];
	/** Settings of the style. */
	readonly settings: number;
	/** Share of the table's looks (cells × leaves, edges) that the style alone reproduces, 0 to 1. */
	readonly reproduced: number;
}

/** The fields that a style can be made to say. */
const LIFTED = FIELDS.filter(({ lift }) => lift);

/** A value of a field as something to count and compare; what shows where nothing is said is undefined. */
const keyOf = (field: Field<LookField>, value: unknown): LeafValue | undefined => {
	if (value === undefined || sameShown(value, field.unsaid)) return undefined;
	return value !== null && typeof value === 'object' ? JSON.stringify(value) : (value as LeafValue);
};
const unsaidKey = ({ unsaid }: Field<LookField>): LeafValue | undefined =>
	unsaid === null ? NOTHING_SHOWN : (unsaid as LeafValue | undefined);
const NOTHING_SHOWN = 'null';
/** The inverse of {@link keyOf}. */
const valueOf = (field: Field<LookField>, key: LeafValue): unknown =>
	field.unsaid === null ? JSON.parse(String(key)) : key;

/** Cycles of bands that are looked for. */
const CYCLES: readonly { sizes: number[]; restartAtGroups: boolean }[] = [
	{ sizes: [1, 1], restartAtGroups: true },
	{ sizes: [1, 1], restartAtGroups: false },
	{ sizes: [2, 2], restartAtGroups: true },
	{ sizes: [1, 1, 1], restartAtGroups: true },
	{ sizes: [3, 3], restartAtGroups: true },
	{ sizes: [1, 2], restartAtGroups: true },
	{ sizes: [2, 1], restartAtGroups: true }
];

const lineKey = (line: Line | null): string | undefined =>
	!line || line.pattern === 'none' ? undefined : JSON.stringify([line.pattern, line.weight, line.ink]);

/** Which parts apply where, for a style that says nothing but its bands. */
const bare = (table: Table, rows?: (typeof CYCLES)[number], columns = false): Structure =>
	structureOf(
		{ ...table, partsOff: [], touches: [] },
		flatten({
			format: 'heptarch-style',
			version: 1,
			name: 'lifted',
			...((rows || columns) && { bands: { ...(rows && { rows }), ...(columns && { columns: { sizes: [1, 1] } }) } }),
			parts: {}
		})
	);

function cellDemands(
	table: Table,
	structure: Structure,
	appearance: Appearance,
	field: Field<LookField>
): Demand<LeafValue>[] {
	const bySignature = new Map<number, Map<LeafValue | undefined, number>>();
	table.cells.forEach(({ r, c }, i) => {
		const look = appearance.looks[appearance.cellLook[i]!]!;
		// A slot that the file leaves out shows nothing, and asks for nothing.
		if (Object.keys(look).length === 0) return;
		const signature = structure.cellSignature[r * table.columns + c]!;
		const wanted = bySignature.get(signature) ?? new Map<LeafValue | undefined, number>();
		bySignature.set(signature, wanted);
		const key = keyOf(field, look[field.name]);
		wanted.set(key, (wanted.get(key) ?? 0) + 1);
	});
	// Where some cells show what shows anyway and others do not, the first have to say it.
	const unsaid = unsaidKey(field);
	const isMixed = [...bySignature.values()].some((wanted) => [...wanted.keys()].some((key) => key !== undefined));
	return [...bySignature].map(([signature, wanted]) => ({
		sayers: structure.signatures[signature]!.parts.map(({ name }) => name),
		wanted:
			isMixed && unsaid !== undefined ? new Map([...wanted].map(([key, count]) => [key ?? unsaid, count])) : wanted
	}));
}

function edgeDemands(structure: Structure, appearance: Appearance): Demand<string>[] {
	const byEdge = new Map<number, Map<string | undefined, number>>();
	const count = (signatures: Int32Array, lines: Int32Array) =>
		signatures.forEach((signature, i) => {
			if (signature < 0 || lines[i]! < 0) return;
			const wanted = byEdge.get(signature) ?? new Map<string | undefined, number>();
			byEdge.set(signature, wanted);
			const key = lineKey(appearance.lines[lines[i]!]!);
			wanted.set(key, (wanted.get(key) ?? 0) + 1);
		});
	count(structure.across, appearance.across);
	count(structure.down, appearance.down);
	return [...byEdge].map(([signature, wanted]) => ({
		sayers: edgeParts(structure, signature)
			.map(({ part, place }) => `${part.name} ${place}`)
			.reverse(),
		// An edge without a line may have to be kept from one that a weaker part draws.
		wanted: new Map(
			[...wanted].flatMap(
				([key, times]) =>
					(key === undefined
						? [
								[undefined, times],
								['none', times]
							]
						: [[key, times]]) as [string | undefined, number][]
			)
		)
	}));
}

/** Opens no role by hand: where a part says just what a type role of the house says, it names the role. */
function withRole(settings: PartSettings, roles: Readonly<Record<string, TypeRole>>): PartSettings {
	const leaves = leavesOf(settings);
	let best: string | undefined;
	let most = 1;
	for (const [name, role] of Object.entries(roles)) {
		const entries = Object.entries(role);
		const fits = entries.every(([leaf, value]) => {
			const own = leaves.get(`text.${leaf}`);
			return leaf === 'case' || leaf === 'tracking'
				? own === undefined || own === value
				: String(own).replace(/ /g, '') === String(value).replace(/ /g, '');
		});
		const count = entries.filter(([leaf]) => leaves.has(`text.${leaf}`)).length;
		if (fits && count > most) [best, most] = [name, count];
	}
	if (!best) return settings;
	let out = settings;
	for (const leaf of Object.keys(roles[best]!)) out = withLeaf(out, `text.${leaf}`, undefined);
	return withLeaf(out, 'text.role', best);
}

/** Everything that a style with these bands would have to say. */
function solve(table: Table, structure: Structure, appearance: Appearance) {
	const order = [...new Set(structure.signatures.flatMap(({ parts }) => parts.map(({ name }) => name)))].sort(
		comparePartNames
	);
	const cells = LIFTED.map((field) => ({
		field,
		...choose(cellDemands(table, structure, appearance, field), order)
	}));
	const demands = edgeDemands(structure, appearance);
	const places = ['betweenRows', 'betweenColumns', 'top', 'bottom', 'start', 'end'];
	const edges = choose(
		demands,
		order.flatMap((part) => places.map((place) => `${part} ${place}`))
	);
	const cost =
		cells.reduce((sum, { settings, missed }) => sum + settings.size + missed, 0) + edges.settings.size + edges.missed;
	return { cells, edges, cost };
}

/**
 * Finds the style that reproduces a formatted table with the fewest settings, and what is left over as touches.
 * `house` lends its inks and type roles where they say exactly what the table shows.
 */
export function lift(table: Table, appearance: Appearance, house: House, name: string): Lifted {
	const whole: Table = { ...table, partsOff: [], carry: ASPECTS, touches: [] };
	let best = {
		rows: undefined as (typeof CYCLES)[number] | undefined,
		columns: false,
		...solve(whole, bare(whole), appearance)
	};
	for (const rows of CYCLES) {
		const found = solve(whole, bare(whole, rows), appearance);
		// A cycle costs a setting of its own.
		if (found.cost + 1 < best.cost) best = { rows, columns: false, ...found };
	}
	const striped = solve(whole, bare(whole, best.rows, true), appearance);
	if (striped.cost + 1 < best.cost) best = { ...best, columns: true, ...striped };

	const inks = inkNames(house);
	const inkName = (ink: Hex) => inks.get(ink) ?? ink;
	const parts: Record<string, PartSettings> = {};
	const set = (part: string, path: string, value: LeafValue) =>
		(parts[part] = withLeaf(parts[part] ?? {}, path, value));
	for (const { field, settings } of best.cells) {
		for (const [part, key] of settings)
			for (const [path, value] of field.lift!(valueOf(field, key), inkName)) set(part, path, value);
	}
	for (const [sayer, key] of best.edges.settings) {
		const at = sayer.lastIndexOf(' ');
		const [part, place] = [sayer.slice(0, at), sayer.slice(at + 1)];
		if (key === 'none') {
			set(part, `lines.${place}.pattern`, 'none');
			continue;
		}
		const [pattern, weight, ink] = JSON.parse(key) as [string, Emu, Hex];
		set(part, `lines.${place}.pattern`, pattern);
		set(part, `lines.${place}.weight`, exactLength(weight));
		set(part, `lines.${place}.ink`, inkName(ink));
	}
	if (appearance.shadow)
		for (const [path, value] of liftShadow(TABLE_SHADOW, appearance.shadow, inkName)) set('ground', path, value);
	const style: Style = {
		format: 'heptarch-style',
		version: 1,
		name,
		...((best.rows || best.columns) && {
			bands: { ...(best.rows && { rows: best.rows }), ...(best.columns && { columns: { sizes: [1, 1] } }) }
		}),
		parts: Object.fromEntries(
			Object.entries(parts)
				.sort(([a], [b]) => comparePartNames(a, b))
				.map(([part, settings]) => [part, withRole(settings, house.typeRoles)])
		)
	};
	const { touches, right, all } = leftOver(whole, appearance, style, house, inkName);
	const settings = Object.values(style.parts).reduce((sum, one) => sum + leavesOf(one).size, 0);
	return { style, touches, settings, reproduced: all ? right / all : 1 };
}

/** What the style alone shows otherwise than the table, as touches. */
function leftOver(table: Table, appearance: Appearance, style: Style, house: House, inkName: (ink: Hex) => string) {
	const shown = appearanceOf(resolve(table, flatten(style), house));
	const touched = new Map<number, { r: number; c: number; set: PartSettings }>();
	const touch = (r: number, c: number, path: string, value: LeafValue) => {
		const at = r * table.columns + c;
		const entry = touched.get(at) ?? { r, c, set: {} };
		touched.set(at, { ...entry, set: withLeaf(entry.set, path, value) });
	};
	let [right, all] = [0, 0];
	table.cells.forEach(({ r, c }, i) => {
		const want = appearance.looks[appearance.cellLook[i]!]!;
		const have = shown.looks[shown.cellLook[i]!]!;
		for (const { name, unsaid, lift: leavesOfValue } of LIFTED) {
			const value = want[name];
			if (value === undefined) continue;
			all++;
			if (sameShown(value, have[name] ?? unsaid)) right++;
			else for (const [path, said] of leavesOfValue!(value, inkName)) touch(r, c, path, said);
		}
	});
	const line = (edge: number, of: Appearance) => (edge < 0 ? undefined : lineKey(of.lines[edge]!));
	const edges = (which: 'across' | 'down', width: number, side: (r: number, c: number) => [number, number, string]) =>
		appearance[which].forEach((edge, i) => {
			if (edge < 0 || shown[which][i]! < 0) return;
			all++;
			const want = line(edge, appearance);
			if (want === line(shown[which][i]!, shown)) {
				right++;
				return;
			}
			const [r, c, place] = side(Math.floor(i / width), i % width);
			if (want === undefined) {
				touch(r, c, `lines.${place}.pattern`, 'none');
				return;
			}
			const [pattern, weight, ink] = JSON.parse(want) as [string, Emu, Hex];
			touch(r, c, `lines.${place}.pattern`, pattern);
			touch(r, c, `lines.${place}.weight`, exactLength(weight));
			touch(r, c, `lines.${place}.ink`, inkName(ink));
		});
	edges('across', table.columns, (r, c) => (r === table.rows ? [r - 1, c, 'bottom'] : [r, c, 'top']));
	edges('down', table.columns + 1, (r, c) => (c === table.columns ? [r, c - 1, 'end'] : [r, c, 'start']));
	return { touches: [...touched.values()], right, all };
}
