import { roleFamily, roleWords, type RowRole } from '$lib/core/table/roles.ts';

/** The roles that a person can give a row, in the order in which rows usually stand. */
export function rolesToChoose(roles: readonly RowRole[]): RowRole[] {
	const deepest = (family: string, least: number) =>
		Math.max(
			least,
			...roles.filter((role) => role.startsWith(`${family}:`)).map((role) => Number(role.split(':')[1]) + 1)
		);
	const levels = (family: 'header' | 'group' | 'subtotal', least: number) =>
		Array.from({ length: deepest(family, least) }, (_, i): RowRole => `${family}:${i + 1}`);
	return ['title', ...levels('header', 2), ...levels('group', 1), 'body', ...levels('subtotal', 1), 'total', 'note'];
}

/** Classes of the small label that says a row's role. */
export function roleTone(role: RowRole): string {
	const family = roleFamily(role);
	if (family === 'header') return 'bg-picked-wash text-picked';
	if (family === 'subtotal' || family === 'total') return 'bg-warning-wash text-warning-text';
	if (family === 'body') return 'text-quiet opacity-0 group-hover:opacity-100 focus:opacity-100';
	return 'bg-desk text-quiet';
}

export { roleWords };
