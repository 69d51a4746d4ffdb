import { page } from '$app/state';
import { may, whyNot, type Role } from '$lib/workbench/roles.ts';

/** Why whoever looks at this may not do what is for a role at least; undefined where they may. */
export function refusedTo(least: Role): string | undefined {
	const role = (page.data as { who?: { role: Role } }).who?.role;
	return role && !may(role, least) ? whyNot(role, least) : undefined;
}
