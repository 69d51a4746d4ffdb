import { InputError } from '../errors.ts';
import { leavesOf } from './leaves.ts';
import { comparePartNames } from './parts.ts';
import type { CellRule, LeafValue, Style, TypeRole } from './types.ts';

/** One leaf of a flattened style: its value and the style of the chain that set it. */
export interface SetLeaf {
	readonly value: LeafValue;
	readonly style: string;
}

/**
 * A style with its whole base chain resolved leaf by leaf: nothing in it refers to another style.
 * `parts` are in order, weakest first; `rules` in the order in which they apply.
 */
export interface FlatStyle {
	readonly name: string;
	readonly reading: 'down' | 'up';
	readonly inks: ReadonlyMap<string, string>;
	readonly typeRoles: ReadonlyMap<string, TypeRole>;
	readonly bands: {
		readonly rowSizes: readonly number[];
		readonly restartAtGroups: boolean;
		readonly columnSizes: readonly number[];
	};
	readonly parts: ReadonlyMap<string, ReadonlyMap<string, SetLeaf>>;
	readonly rules: readonly (CellRule & { readonly style: string; readonly leaves: ReadonlyMap<string, SetLeaf> })[];
}

/** Finds a base by the name (in a file) or id (in a house) that a style gives in `basedOn`. */
export type FindBase = (reference: string) => Style | undefined;

/**
 * The styles that `style` builds on, nearest first, then their bases. Without `find`, the file's own `bases` are used.
 * Throws InputError where a base is missing or the chain comes back to itself, naming the chain.
 */
export function baseChain(style: Style, find?: FindBase): Style[] {
	const carried = new Map((style.bases ?? []).map((base) => [base.name, base]));
	const lookUp = (reference: string) => find?.(reference) ?? carried.get(reference);
	const chain: Style[] = [];
	const names = [style.name];
	let at = style;
	while (at.basedOn) {
		const base = at.basedOn === style.name ? style : lookUp(at.basedOn);
		if (!base)
			throw new InputError(
				'base',
				`“${at.name}” builds on “${at.basedOn}”, which is not here: add it to "bases", or take basedOn out.`,
				'/basedOn'
			);
		names.push(base.name);
		if (names.indexOf(base.name) < names.length - 1)
			throw new InputError(
				'base-cycle',
				`The styles build on each other in a circle: ${names.join(' → ')}.`,
				'/basedOn'
			);
		chain.push(base);
		at = base;
	}
	return chain;
}

/** Resolves the inheritance of a style leaf by leaf (engine §3). Throws as {@link baseChain} does. */
export function flatten(style: Style, find?: FindBase): FlatStyle {
	const layers = [style, ...baseChain(style, find)].reverse();
	const inks = new Map<string, string>();
	const typeRoles = new Map<string, TypeRole>();
	const parts = new Map<string, Map<string, SetLeaf>>();
	const rules = new Map<string, FlatStyle['rules'][number]>();
	let reading: 'down' | 'up' = 'down';
	const bands = {
		rowSizes: [1, 1] as readonly number[],
		restartAtGroups: true,
		columnSizes: [1, 1] as readonly number[]
	};
	for (const layer of layers) {
		reading = layer.reading ?? reading;
		bands.rowSizes = layer.bands?.rows?.sizes ?? bands.rowSizes;
		bands.restartAtGroups = layer.bands?.rows?.restartAtGroups ?? bands.restartAtGroups;
		bands.columnSizes = layer.bands?.columns?.sizes ?? bands.columnSizes;
		for (const [name, value] of Object.entries(layer.inks ?? {})) inks.set(name, value);
		for (const [name, role] of Object.entries(layer.typeRoles ?? {}))
			typeRoles.set(name, { ...typeRoles.get(name), ...role });
		for (const [name, settings] of Object.entries(layer.parts)) {
			const leaves = parts.get(name) ?? new Map<string, SetLeaf>();
			for (const [path, value] of leavesOf(settings)) leaves.set(path, { value, style: layer.name });
			if (leaves.size > 0) parts.set(name, leaves);
		}
		for (const rule of layer.rules ?? []) {
			const leaves = new Map<string, SetLeaf>();
			for (const [path, value] of leavesOf(rule.set)) leaves.set(path, { value, style: layer.name });
			rules.set(rule.name, { ...rule, style: layer.name, leaves });
		}
	}
	return {
		name: style.name,
		reading,
		inks,
		typeRoles,
		bands,
		parts: new Map([...parts].sort(([a], [b]) => comparePartNames(a, b))),
		rules: [...rules.values()]
	};
}
