import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readNumber, readRequest } from '$lib/server/http/requests.ts';
import { addWorkStep, loadWork, moveWork } from '$lib/server/tables/work.ts';
import type { RequestHandler } from './$types.js';

const place = ({ id, index }: { id: string; index: string }) =>
	[readId(id, 'document'), readNumber(index, 'table')] as const;

/** A table's work. */
export const GET: RequestHandler = ({ params }) =>
	answer<Gives<'GET /api/documents/*/tables/*/work'>>(async () => {
		const { base, from, steps, at, by, state } = await loadWork(db(), ...place(params));
		return { base, from, steps, at, by, wears: state.tables[place(params)[1]] ?? {} };
	});

/** Saves one edit. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/documents/*/tables/*/work'>>(
		async () => addWorkStep(db(), ...place(params), await readRequest(request, 'newWork')),
		201
	);

/** Undo and redo. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/documents/*/tables/*/work'>>(async () => {
		const { from, to } = await readRequest(request, 'moveWork');
		await moveWork(db(), ...place(params), from, to);
	});
