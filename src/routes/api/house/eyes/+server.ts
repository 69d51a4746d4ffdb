import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { askForSecondEyes } from '$lib/server/house/house.ts';
import type { RequestHandler } from './$types.js';

/** Whether editions are looked at by somebody else before they are out. */
export const PUT: RequestHandler = ({ request }) =>
	answer(async () => askForSecondEyes(db(), (await readRequest(request, 'secondEyes')).asks));
