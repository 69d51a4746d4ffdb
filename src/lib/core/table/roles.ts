/**
 * What a row is. Tiers and levels count from 1; header tier 1 is the outermost header row.
 * Spelled as in table files (`header:1`).
 */
export type RowRole =
	'title' | 'body' | 'total' | 'note' | `header:${number}` | `group:${number}` | `subtotal:${number}`;

export type RoleFamily = 'title' | 'header' | 'group' | 'body' | 'subtotal' | 'total' | 'note';

export const ROLE_PATTERN = '^(title|body|total|note|(header|group|subtotal):[1-9]\\d*)$';

export const COLUMN_KINDS = ['text', 'code', 'count', 'quantity', 'money', 'percent', 'date', 'mixed'] as const;
export type ColumnKind = (typeof COLUMN_KINDS)[number];

/** Kinds whose cells are numbers, and so line up at the end. */
export const NUMERIC_KINDS: ReadonlySet<ColumnKind> = new Set(['count', 'quantity', 'money', 'percent']);

interface SplitRole {
	readonly family: RoleFamily;
	readonly level: number;
}
/** Roles are few and asked for by every row. */
const split = new Map<RowRole, SplitRole>();

export function splitRole(role: RowRole): SplitRole {
	let known = split.get(role);
	if (!known) {
		const [family, level] = role.split(':');
		split.set(role, (known = { family: family as RoleFamily, level: level ? Number(level) : 1 }));
	}
	return known;
}

export const roleFamily = (role: RowRole): RoleFamily => splitRole(role).family;

/** A role as people read it: "header 2", "subtotal". Level 1 goes without saying, except for header tiers. */
export function roleWords(role: RowRole): string {
	const { family, level } = splitRole(role);
	return level > 1 || family === 'header' ? `${family} ${level}` : family;
}
