import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { listLog } from '$lib/server/house/log.ts';
import { logQuery } from '$lib/server/http/log-query.ts';
import type { RequestHandler } from './$types.js';

/** The most entries that are taken out at once. */
const MOST = 100_000;

/** What was done to the house, as JSON Lines, the latest first. */
export const GET: RequestHandler = ({ url }) =>
	answer(async () => {
		const entries = await listLog(db(), { ...logQuery(url.searchParams), most: MOST });
		return new Response(entries.map((entry) => `${JSON.stringify(entry)}\n`).join(''), {
			headers: {
				'Content-Type': 'application/jsonl; charset=utf-8',
				'Content-Disposition': 'attachment; filename="house-log.jsonl"'
			}
		});
	});
