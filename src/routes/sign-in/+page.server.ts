import { providerOf } from '$lib/server/people/auth.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { PageServerLoad } from './$types.js';

/** What the provider is called at which people may sign in, too, and who is signed in but belongs to no house. */
export const load: PageServerLoad = async ({ locals, request }) => {
	const provider = providerOf(process.env)?.name;
	if (locals.who || locals.unknown !== undefined) return { provider, outside: undefined };
	const { auth } = await entrance();
	const session = await auth.api.getSession({ headers: request.headers, query: { disableRefresh: true } });
	// Somebody who is known, and belongs to no house any more.
	return { provider, outside: session?.user.name };
};
