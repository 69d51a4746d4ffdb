import { namedAmong } from '$lib/server/census/among.ts';
import { db } from '$lib/server/database.ts';
import { answer } from '$lib/server/http/answers.ts';
import type { Gives } from '$lib/server/http/contract.ts';
import { readAmong, readCensusOf } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** The tables of a group of looks, with a value of a setting, with a finding, or that a rule flags. */
export const GET: RequestHandler = ({ url }) =>
	answer<Gives<'GET /api/census/tables'>>(() => namedAmong(db(), readCensusOf(url), readAmong(url)));
