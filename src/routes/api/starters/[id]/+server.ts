import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { changeStarter, removeStarter } from '$lib/server/tables/tables.ts';
import type { RequestHandler } from './$types.js';

export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/starters/*'>>(async () =>
		changeStarter(db(), readId(params.id, 'starter'), await readRequest(request, 'changeStarter'))
	);

export const DELETE: RequestHandler = ({ params }) =>
	answer<Gives<'DELETE /api/starters/*'>>(() => removeStarter(db(), readId(params.id, 'starter')));
