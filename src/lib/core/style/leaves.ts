import { LEAVES, type PartSettings } from '../properties/index.ts';
import type { LeafValue } from './types.ts';

/** The leaves of a type role, in the order in which a part that names the role opens them. */
export const TYPE_ROLE_LEAVES = ['family', 'size', 'weight', 'case', 'tracking'] as const;

type Nested = { [key: string]: Nested | LeafValue | null | undefined };

const STEPS = LEAVES.map(({ path }) => ({ path, steps: path.split('.') }));
const known = new WeakMap<PartSettings, ReadonlyMap<string, LeafValue>>();

/** The leaves that a part sets, by path, in canonical order. Null is not set. Settings are immutable: asked again, the same map. */
export function leavesOf(settings: PartSettings): ReadonlyMap<string, LeafValue> {
	const before = known.get(settings);
	if (before) return before;
	const found = new Map<string, LeafValue>();
	for (const { path, steps } of STEPS) {
		let value: Nested | LeafValue | null | undefined = settings as Nested;
		for (const step of steps) value = value !== null && typeof value === 'object' ? value[step] : undefined;
		if (value !== null && value !== undefined && typeof value !== 'object') found.set(path, value);
	}
	known.set(settings, found);
	return found;
}

/** The inverse of {@link leavesOf}: nested settings in canonical order. */
export function settingsOf(leaves: ReadonlyMap<string, LeafValue>): PartSettings {
	const settings: Nested = {};
	for (const { path, steps } of STEPS) {
		const value = leaves.get(path);
		if (value === undefined) continue;
		let place: Nested = settings;
		for (const step of steps.slice(0, -1)) place = (place[step] ??= {}) as Nested;
		place[steps.at(-1)!] = value;
	}
	return settings as PartSettings;
}

/** A copy of `settings` with one leaf set, or unset where `value` is undefined. */
export function withLeaf(settings: PartSettings, path: string, value: LeafValue | undefined): PartSettings {
	const leaves = new Map(leavesOf(settings));
	if (value === undefined) leaves.delete(path);
	else leaves.set(path, value);
	return settingsOf(leaves);
}
