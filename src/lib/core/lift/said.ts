import type { Line, Look } from '../cascade/look.ts';
import type { Hex } from '../colour.ts';
import { inkNames, type House } from '../house.ts';
import { FIELDS } from '../properties/index.ts';
import type { LeafValue, LineSettings } from '../style/types.ts';
import { exactLength } from '../units.ts';

/** The leaves that would say a look: what its cell shows, whoever made it show that. Diagonals are lines, and not among them. */
export function leavesSaying(look: Look, house: Pick<House, 'inks'>): ReadonlyMap<string, LeafValue> {
	const names = inkNames(house);
	const name = (ink: Hex) => names.get(ink) ?? ink;
	const said = new Map<string, LeafValue>();
	for (const field of FIELDS) {
		const value = look[field.name];
		if (value === undefined || !field.lift) continue;
		for (const [path, leaf] of field.lift(value as never, name)) said.set(path, leaf);
	}
	return said;
}

/** The settings that would say a line. */
export function lineSaying(line: Line | null, house: Pick<House, 'inks'>): LineSettings {
	if (!line) return { pattern: 'none' };
	const { pattern, weight, ink } = line;
	return { pattern, weight: exactLength(weight), ink: inkNames(house).get(ink) ?? ink };
}
