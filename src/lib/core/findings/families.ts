import { SHIPPED, standIn } from '../layout/fonts.ts';
import { partWords } from '../style/parts.ts';
import type { Finding, Trial } from './types.ts';

const isShipped = (family: string): boolean => SHIPPED.some((name) => name.toLowerCase() === family.toLowerCase());

/** Families that do not ship with the application: what stands in for them here. */
export function findFamilies({ flat, house }: Trial): Finding[] {
	const used = new Map<string, { place: string; path: string }[]>();
	const note = (family: string, place: string, path: string) => {
		if (!isShipped(family)) used.set(family, [...(used.get(family) ?? []), { place, path }]);
	};
	const places = [...flat.parts, ...flat.rules.map(({ name, leaves }) => [`rule:${name}`, leaves] as const)];
	for (const [place, leaves] of places) {
		const own = leaves.get('text.family')?.value;
		if (own !== undefined) note(String(own), place, 'text.family');
		else {
			const name = leaves.get('text.role')?.value;
			const role = name === undefined ? undefined : (flat.typeRoles.get(String(name)) ?? house.typeRoles[String(name)]);
			if (role?.family) note(role.family, place, 'text.role');
		}
	}
	return [...used].map(([family, uses]) => ({
		kind: 'family',
		what: `“${family}” does not ship with the application; ${standIn(family)} stands in for it here`,
		why: `Where the reader’s machine has it, text in ${[...new Set(uses.map(({ place }) => partWords(place)))].join(', ')} will run to other widths than shown.`,
		place: uses[0]!.place,
		fixes: [
			{
				words: `Use ${standIn(family)}`,
				leaves: uses.map(({ place }) => ({ place, path: 'text.family', value: standIn(family) }))
			}
		],
		weight: 0.35
	}));
}
