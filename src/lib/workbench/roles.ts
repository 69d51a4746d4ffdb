/** What somebody may be in a house; each may all that those before it may. */
export const ROLES = ['reader', 'author', 'designer', 'keeper'] as const;
export type Role = (typeof ROLES)[number];

/** What each may beside what those before it may. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
	reader: 'look at everything, take files, read the census',
	author: 'add documents, give them styles, make tables, start runs',
	designer: 'make and change styles, inks, type roles and the policy, publish editions and roll them out',
	keeper: 'look after people, their roles, programs, backups and the name of the house'
};

export const isRole = (value: unknown): value is Role => ROLES.includes(value as Role);

/** Whether somebody may what is for a role at least. */
export const may = (role: Role, least: Role): boolean => ROLES.indexOf(role) >= ROLES.indexOf(least);

/** Somebody in a role. */
export const ONE: Readonly<Record<Role, string>> = {
	reader: 'a reader',
	author: 'an author',
	designer: 'a designer',
	keeper: 'a keeper'
};
/** What somebody may in a role, as a sentence to them. */
export const mayWords = (role: Role): string =>
	`You may ${ROLE_WORDS[role]}${role === 'reader' ? '' : `, and all that ${ONE[ROLES[ROLES.indexOf(role) - 1]!]} may`}.`;
/** Why somebody may not do something, and who changes that. */
export const whyNot = (role: Role, least: Role): string =>
	`This is for ${ONE[least]}; in this house you are ${ONE[role]}. A keeper of the house can change that.`;
