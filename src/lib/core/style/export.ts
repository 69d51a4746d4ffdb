import { inkOf, typeRoleOf, type House } from '../house.ts';
import { isInkLeaf } from '../properties/index.ts';
import { leavesOf } from './leaves.ts';
import { baseChain, type FindBase } from './inherit.ts';
import type { Style, TypeRole } from './types.ts';

/**
 * A style as a file that needs nothing else: its base chain in `bases` and named by name, and the house's inks and
 * type roles that it names among its own.
 */
export function selfContained(style: Style, house: House, find?: FindBase): Style {
	const chain = baseChain(style, find);
	const inks: Record<string, string> = {};
	const typeRoles: Record<string, TypeRole> = {};
	for (const layer of [style, ...chain]) {
		const settings = [...Object.values(layer.parts), ...(layer.rules ?? []).map(({ set }) => set)];
		for (const part of settings)
			for (const [path, value] of leavesOf(part)) {
				const name = String(value);
				const ink = isInkLeaf(path) ? inkOf(house, name) : undefined;
				if (ink !== undefined) inks[name] = ink;
				const role = path === 'text.role' ? typeRoleOf(house, name) : undefined;
				if (role !== undefined) typeRoles[name] = role;
			}
	}
	for (const layer of [...chain].reverse()) {
		for (const name of Object.keys(layer.inks ?? {})) delete inks[name];
		for (const name of Object.keys(layer.typeRoles ?? {})) delete typeRoles[name];
	}
	const byName = (layer: Style, i: number): Style => {
		const { bases: _, ...rest } = layer;
		return { ...rest, basedOn: [style, ...chain][i + 1]?.name ?? null };
	};
	const own = byName(style, 0);
	return {
		...own,
		...((Object.keys(inks).length || own.inks) && { inks: { ...inks, ...own.inks } }),
		...((Object.keys(typeRoles).length || own.typeRoles) && { typeRoles: { ...typeRoles, ...own.typeRoles } }),
		...(chain.length && { bases: chain.map((base, i) => byName(base, i + 1)) })
	};
}
