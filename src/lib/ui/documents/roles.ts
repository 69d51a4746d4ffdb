import {
	atLevel,
	behaviour,
	LEVELED,
	MOST_LEVELS,
	ROLES,
	roleWords,
	splitRole,
	type Role,
	type RowRole
} from '$lib/core/roles/index.ts';

/** The roles that a person can give a row, in the order in which rows usually stand: one level more than there are. */
export function rolesToChoose(roles: readonly RowRole[]): RowRole[] {
	const deepest = new Map<string, number>(LEVELED.map((family) => [family, 0]));
	for (const role of roles) {
		const { family, level } = splitRole(role);
		if (deepest.has(family)) deepest.set(family, Math.max(deepest.get(family)!, level));
	}
	return ROLES.flatMap(({ family, isHeader }) => {
		if (!deepest.has(family)) return [family as RowRole];
		const levels = Math.min(MOST_LEVELS, Math.max(isHeader ? 2 : 1, deepest.get(family)! + 1));
		return Array.from({ length: levels }, (_, i) => atLevel(family, i + 1));
	});
}

const TONES: Record<Role['tone'], string> = {
	picked: 'bg-picked-wash text-picked',
	warning: 'bg-warning-wash text-warning-text',
	quiet: 'bg-desk text-quiet',
	hidden: 'text-quiet opacity-0 group-hover:opacity-100 focus:opacity-100'
};
/** Classes of the small label that says a row's role. */
export const roleTone = (role: RowRole): string => TONES[behaviour(role).tone];

export { roleWords };
