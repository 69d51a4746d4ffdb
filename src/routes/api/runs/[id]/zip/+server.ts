import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId } from '$lib/server/http/requests.ts';
import { zipOf } from '$lib/server/runs/zip.ts';
import type { RequestHandler } from './$types.js';

/** Every finished file of a run in one zip, with the account of each. */
export const GET: RequestHandler = ({ params }) => answer(() => zipOf(db(), readId(params.id, 'run')));
