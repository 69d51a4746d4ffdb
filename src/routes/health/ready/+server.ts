import { sql } from 'kysely';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import type { RequestHandler } from './$types.js';

/** Whether it can work: the database answers. For whoever sends it requests; 503 with a sentence where it cannot. */
export const GET: RequestHandler = () =>
	answer(async () => {
		await sql`select 1`.execute(db());
		return { ready: true };
	});
