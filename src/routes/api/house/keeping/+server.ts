import { InputError } from '$lib/core/errors.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { countBeyond, setKeepingTime } from '$lib/server/house/keeping.ts';
import { MOST_KEPT_DAYS } from '$lib/workbench/house.ts';
import type { RequestHandler } from './$types.js';

/** How many steps would go where steps were kept for so many days. */
export const GET: RequestHandler = ({ url }) =>
	answer(async () => {
		const days = Number(url.searchParams.get('days'));
		if (!Number.isInteger(days) || days < 1 || days > MOST_KEPT_DAYS)
			throw new InputError('request', `Days are a whole number from 1 to ${MOST_KEPT_DAYS}.`, '/days');
		return { steps: await countBeyond(db(), days) };
	});

/** For how many days steps are kept from now on; null: for good. */
export const PUT: RequestHandler = ({ request }) =>
	answer(async () => setKeepingTime(db(), (await readRequest(request, 'keeping')).days));
