import { providerOf } from '$lib/server/people/auth.ts';
import type { PageServerLoad } from './$types.js';

/** What the provider is called at which people may sign in, too. */
export const load: PageServerLoad = () => ({ provider: providerOf(process.env)?.name });
