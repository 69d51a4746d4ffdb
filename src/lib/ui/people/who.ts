import { page } from '$app/state';
import { notify } from '../notices.svelte.ts';
import { may, whyNot, type Role } from '$lib/workbench/roles.ts';

const who = () => (page.data as { who?: { role: Role; name: string; person: string; house: string } }).who;

/** The name of whoever looks at this; null where nobody signed in. */
export const ownName = (): string | null => who()?.name ?? null;

/** What something is called in a store of this browser: others who use it, and other houses, have their own of that name. */
export const ofOwn = (name: string): string => `heptarch:${who()?.house ?? ''}:${who()?.person ?? ''}:${name}`;

/** Who did something that arrives here, as its person is told. */
export const doerWords = (by: string | null | undefined): string =>
	!by ? 'Another window' : by === ownName() ? 'Another window of yours' : by;

/** Why whoever looks at this may not do what is for a role at least; undefined where they may. */
export function refusedTo(least: Role): string | undefined {
	const role = who()?.role;
	return role && !may(role, least) ? whyNot(role, least) : undefined;
}

/** Whether whoever looks at this may not do what is for a role at least; why not is said to them. */
export function isRefused(least: Role): boolean {
	const why = refusedTo(least);
	if (why) notify(why, 'error');
	return why !== undefined;
}
