import { InputError } from '../errors.ts';
import { baseChain, flatten, type FindBase, type FlatStyle } from './inherit.ts';
import { leavesOf, settingsOf, withLeaf } from './leaves.ts';
import type { CellRule, LeafValue, PartSettings, Style } from './types.ts';

/*
 * Changes of a style, each a function style → style. A place is a part's name, or `rule:<name>` for what a cell rule
 * sets, as in traces.
 */

const ruleName = (place: string): string | undefined => (place.startsWith('rule:') ? place.slice(5) : undefined);

/** What the style itself, its bases left out, sets at a place. */
export function settingsAt(style: Style, place: string): PartSettings {
	const rule = ruleName(place);
	if (rule === undefined) return style.parts[place] ?? {};
	return style.rules?.find(({ name }) => name === rule)?.set ?? {};
}

/** The style with other settings at a place; a part that sets nothing goes. Throws InputError where there is no such rule. */
export function withSettings(style: Style, place: string, settings: PartSettings): Style {
	const rule = ruleName(place);
	if (rule !== undefined) {
		if (!style.rules?.some(({ name }) => name === rule))
			throw new InputError('rule', `“${style.name}” has no rule “${rule}” of its own.`, '/rules');
		return { ...style, rules: style.rules.map((old) => (old.name === rule ? { ...old, set: settings } : old)) };
	}
	const { [place]: _, ...others } = style.parts;
	return { ...style, parts: leavesOf(settings).size ? { ...others, [place]: settings } : others };
}

/** The style with one leaf set, or unset where `value` is undefined. */
export const withLeafAt = (style: Style, place: string, path: string, value: LeafValue | undefined): Style =>
	withSettings(style, place, withLeaf(settingsAt(style, place), path, value));

/** Several leaves at once; undefined unsets. */
export const withLeavesAt = (
	style: Style,
	place: string,
	leaves: Iterable<readonly [path: string, value: LeafValue | undefined]>
): Style => {
	let settings = settingsAt(style, place);
	for (const [path, value] of leaves) settings = withLeaf(settings, path, value);
	return withSettings(style, place, settings);
};

/** The rules of the style itself replaced; no `rules` where none is left. */
export function withRules(style: Style, rules: readonly CellRule[]): Style {
	const { rules: _, ...rest } = style;
	return rules.length ? { ...rest, rules: [...rules] } : rest;
}

/** Moves the leaf that `style` sets at a place to `base`, where all that build on it get it. */
export function pushUp(style: Style, base: Style, place: string, path: string): { style: Style; base: Style } {
	const value = leavesOf(settingsAt(style, place)).get(path);
	if (value === undefined) return { style, base };
	return { style: withLeafAt(style, place, path, undefined), base: withLeafAt(base, place, path, value) };
}

/** Says here what comes from a base, so that a change there no longer shows here. */
export function freeze(style: Style, flat: FlatStyle, place: string, path: string): Style {
	const leaf = flat.parts.get(place)?.get(path);
	return leaf ? withLeafAt(style, place, path, leaf.value) : style;
}

/** The style with everything of its bases said by itself. It resolves as before, and builds on nothing. */
export function detach(style: Style, find: FindBase): Style {
	const flat = flatten(style, find);
	const chain = baseChain(style, find);
	const parts = Object.fromEntries(
		[...flat.parts].map(([name, leaves]) => [
			name,
			settingsOf(new Map([...leaves].map(([path, { value }]) => [path, value])))
		])
	);
	const layers = [style, ...chain];
	const saysBands = layers.some(({ bands }) => bands);
	const { basedOn: _b, rules: _r, ...rest } = style;
	const alone: Style = {
		...rest,
		basedOn: null,
		...(layers.some(({ reading }) => reading) && { reading: flat.reading }),
		...(flat.inks.size && { inks: Object.fromEntries(flat.inks) }),
		...(flat.typeRoles.size && { typeRoles: Object.fromEntries(flat.typeRoles) }),
		...(saysBands && {
			bands: {
				rows: { sizes: [...flat.bands.rowSizes], restartAtGroups: flat.bands.restartAtGroups },
				columns: { sizes: [...flat.bands.columnSizes] }
			}
		}),
		parts
	};
	return withRules(
		alone,
		flat.rules.map(({ style: _s, leaves: _l, ...rule }) => rule)
	);
}

/** Builds on another base, or on none. Throws InputError where that closes a circle, naming the chain. */
export function rebase(style: Style, reference: string | null, find: FindBase): Style {
	const moved = { ...style, basedOn: reference };
	baseChain(moved, find);
	return moved;
}

/** The leaves that the style sets though its bases say the same: they could go without a change. */
export function repeated(style: Style, find: FindBase): { place: string; path: string }[] {
	const [base] = baseChain(style, find);
	if (!base) return [];
	const below = flatten(base, find);
	return Object.entries(style.parts).flatMap(([place, settings]) =>
		[...leavesOf(settings)].flatMap(([path, value]) =>
			below.parts.get(place)?.get(path)?.value === value ? [{ place, path }] : []
		)
	);
}

/** Calls `change` for the value of every leaf of the style itself that names an ink, and puts what it returns in its place. */
export function mapInks(style: Style, change: (ink: string) => string): Style {
	const settings = (set: PartSettings): PartSettings =>
		settingsOf(
			new Map(
				[...leavesOf(set)].map(([path, value]) => [
					path,
					path.endsWith('ink') && value !== 'none' ? change(String(value)) : value
				])
			)
		);
	const mapped: Style = {
		...style,
		parts: Object.fromEntries(Object.entries(style.parts).map(([name, set]) => [name, settings(set)]))
	};
	return style.rules ? { ...mapped, rules: style.rules.map((rule) => ({ ...rule, set: settings(rule.set) })) } : mapped;
}

/** Calls `change` for every type role that the style itself names. */
export function mapTypeRoles(style: Style, change: (role: string) => string): Style {
	const settings = (set: PartSettings): PartSettings =>
		set.text?.role ? withLeaf(set, 'text.role', change(set.text.role)) : set;
	const mapped: Style = {
		...style,
		parts: Object.fromEntries(Object.entries(style.parts).map(([name, set]) => [name, settings(set)]))
	};
	return style.rules ? { ...mapped, rules: style.rules.map((rule) => ({ ...rule, set: settings(rule.set) })) } : mapped;
}

/** Where the style itself names inks: how often each, `none` left out. */
export function inkUses(style: Style): Map<string, number> {
	const uses = new Map<string, number>();
	mapInks(style, (ink) => {
		uses.set(ink, (uses.get(ink) ?? 0) + 1);
		return ink;
	});
	return uses;
}

export function typeRoleUses(style: Style): Map<string, number> {
	const uses = new Map<string, number>();
	mapTypeRoles(style, (role) => {
		uses.set(role, (uses.get(role) ?? 0) + 1);
		return role;
	});
	return uses;
}
