import { typeRoleOf } from '../house.ts';
import { SHIPPED, standIn } from '../layout/fonts.ts';
import { partWords } from '../style/parts.ts';
import { findingKind, found, type Finding } from './finding.ts';
import type { Trial } from './trial.ts';

const isShipped = (family: string): boolean => SHIPPED.some((name) => name.toLowerCase() === family.toLowerCase());

interface Args {
	readonly family: string;
	readonly standIn: string;
	readonly parts: readonly string[];
}

export const family = findingKind({
	code: 'family',
	called: 'type that is not here',
	of: ['style'],
	words: ({ family: asked, standIn: shown }: Args) =>
		`“${asked}” does not ship with the application; ${shown} stands in for it here`,
	why: ({ parts }: Args) =>
		`Where the reader’s machine has it, text in ${parts.map(partWords).join(', ')} will run to other widths than shown.`,
	weight: () => 0.35
});

/** Families that do not ship with the application: what stands in for them here. */
export function findFamilies({ flat, house }: Trial): Finding[] {
	const used = new Map<string, { place: string; path: string }[]>();
	const note = (name: string, place: string, path: string) => {
		if (!isShipped(name)) used.set(name, [...(used.get(name) ?? []), { place, path }]);
	};
	const places = [...flat.parts, ...flat.rules.map(({ name, leaves }) => [`rule:${name}`, leaves] as const)];
	for (const [place, leaves] of places) {
		const own = leaves.get('text.family')?.value;
		if (own !== undefined) note(String(own), place, 'text.family');
		else {
			const name = leaves.get('text.role')?.value;
			const role =
				name === undefined ? undefined : (flat.typeRoles.get(String(name)) ?? typeRoleOf(house, String(name)));
			if (role?.family) note(role.family, place, 'text.role');
		}
	}
	return [...used].map(([name, uses]) =>
		found(
			family,
			{ family: name, standIn: standIn(name), parts: [...new Set(uses.map(({ place }) => place))] },
			{
				place: uses[0]!.place,
				fixes: [
					{
						words: `Use ${standIn(name)}`,
						leaves: uses.map(({ place }) => ({ place, path: 'text.family', value: standIn(name) }))
					}
				]
			}
		)
	);
}
