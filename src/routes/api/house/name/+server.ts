import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { nameHouse } from '$lib/server/house/house.ts';
import type { RequestHandler } from './$types.js';

/** The house is called otherwise from now on. */
export const PUT: RequestHandler = ({ request }) =>
	answer(async () => nameHouse(db(), (await readRequest(request, 'nameHouse')).name));
