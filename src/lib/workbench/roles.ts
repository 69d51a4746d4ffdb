/** What somebody may be in a house; each may all that those before it may. */
export const ROLES = ['reader', 'author', 'designer', 'keeper'] as const;
export type Role = (typeof ROLES)[number];

/** What each may do beside what those before it may. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
	reader: 'looks at everything, takes files, reads the census',
	author: 'adds documents, gives them styles, makes tables, starts runs',
	designer: 'makes and changes styles, the house and its policy, publishes and rolls out editions',
	keeper: 'looks after people and their roles'
};

export const isRole = (value: unknown): value is Role => ROLES.includes(value as Role);

/** Whether somebody may what is for a role at least. */
export const may = (role: Role, least: Role): boolean => ROLES.indexOf(role) >= ROLES.indexOf(least);

const ONE: Readonly<Record<Role, string>> = {
	reader: 'a reader',
	author: 'an author',
	designer: 'a designer',
	keeper: 'a keeper'
};
/** Why somebody may not do something, and who changes that. */
export const whyNot = (role: Role, least: Role): string =>
	`This is for ${ONE[least]}; in this house you are ${ONE[role]}. A keeper of the house can change that.`;
