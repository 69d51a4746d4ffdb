import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Where the provider sends whoever signed in there (OpenID Connect Core 1.0, 3.1.2.5). */
export const GET: RequestHandler = async ({ request }) => (await entrance()).auth.handler(request);
