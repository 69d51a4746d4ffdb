import { body } from './body.ts';
import { group } from './group.ts';
import { header } from './header.ts';
import { note } from './note.ts';
import { MOST_LEVELS, type Role } from './role.ts';
import { subtotal } from './subtotal.ts';
import { title } from './title.ts';
import { total } from './total.ts';

export { MOST_LEVELS, type CornerRow, type Role } from './role.ts';

/** Every role of rows, in the order in which rows usually stand. */
export const ROLES = [title, header, group, body, subtotal, total, note] as const;

type Listed = (typeof ROLES)[number];
export type RoleFamily = Listed['family'];
type Leveled = Extract<Listed, { readonly levels: true }>['family'];

/** What a row is, spelled as in table files: `body`, `header:1`. Tiers and levels run from 1 to 9. */
export type RowRole = Exclude<RoleFamily, Leveled> | `${Leveled}:${number}`;

const byFamily = new Map<string, Role<RoleFamily>>(ROLES.map((role) => [role.family, role]));

/** The definition of a family. */
export const roleOf = (family: RoleFamily): Role<RoleFamily> => byFamily.get(family)!;

const families = (isIt: (role: Role) => boolean) => ROLES.filter(isIt).map(({ family }) => family);
/** Families whose rows are told apart by a number, and those whose are not. */
export const LEVELED = families(({ levels }) => levels) as readonly Leveled[];
export const LEVEL_PATTERN = `[1-${MOST_LEVELS}]`;

const plain = families(({ levels }) => !levels).join('|');
/** What a role is written like; shared with the JSON Schema. */
export const ROLE_PATTERN = `^(${plain}|(${LEVELED.join('|')}):${LEVEL_PATTERN})$`;
/** The same, or a family: what rows a condition speaks of. */
export const ROWS_PATTERN = `^(${plain}|(${LEVELED.join('|')})(:${LEVEL_PATTERN})?)$`;

interface SplitRole {
	readonly family: RoleFamily;
	/** 1 where the family has no levels. */
	readonly level: number;
	readonly role: Role<RoleFamily>;
}
/** Roles are few and asked for by every row. */
const split = new Map<RowRole, SplitRole>();

export function splitRole(role: RowRole): SplitRole {
	let known = split.get(role);
	if (!known) {
		const [family, level] = role.split(':') as [RoleFamily, string | undefined];
		known = { family, level: level ? Number(level) : 1, role: roleOf(family) };
		split.set(role, known);
	}
	return known;
}

export const roleFamily = (role: RowRole): RoleFamily => splitRole(role).family;
/** How rows of a role behave. */
export const behaviour = (role: RowRole): Role<RoleFamily> => splitRole(role).role;
export const isHeader = (role: RowRole): boolean => behaviour(role).isHeader;
export const isBody = (role: RowRole): boolean => role === body.family;

/** The role of a family at a level, no deeper than levels run. */
export const atLevel = (family: RoleFamily, level: number): RowRole =>
	(roleOf(family).levels ? `${family}:${Math.min(MOST_LEVELS, Math.max(1, level))}` : family) as RowRole;

/** A role as people read it: "header 2", "subtotal". Level 1 is named for header tiers only. */
export function roleWords(role: RowRole): string {
	const { level, role: own } = splitRole(role);
	return level > 1 || own.isHeader ? `${own.words} ${level}` : own.words;
}

/**
 * How many rows at the top are the head of a table: its titles and header rows, if a header row is among them. 0 where
 * nothing else would be left.
 */
export function headRows(roles: readonly RowRole[]): number {
	let rows = 0;
	while (rows < roles.length && behaviour(roles[rows]!).inHead) rows++;
	return rows < roles.length && roles.slice(0, rows).some(isHeader) ? rows : 0;
}
