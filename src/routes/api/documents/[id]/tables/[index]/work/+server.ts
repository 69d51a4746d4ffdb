import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readNumber, readRequest } from '$lib/server/http/requests.ts';
import { addWorkStep, loadWork, moveWork, workSince } from '$lib/server/tables/work.ts';
import type { RequestHandler } from './$types.js';

const place = ({ id, index }: { id: string; index: string }) =>
	[readId(id, 'document'), readNumber(index, 'table')] as const;

/** A table's work; with `after`, only whether it still stands at that step. */
export const GET: RequestHandler = ({ params, url }) =>
	answer(async () => {
		const after = url.searchParams.get('after');
		if (after !== null) return workSince(db(), ...place(params), after === '' ? null : readNumber(after, 'step'));
		const { base, from, steps, at, state } = await loadWork(db(), ...place(params));
		return { base, from, steps, at, wears: state.tables[place(params)[1]] ?? {} };
	});

/** Saves one edit. */
export const POST: RequestHandler = ({ params, request }) =>
	answer(async () => addWorkStep(db(), ...place(params), await readRequest(request, 'newWork')), 201);

/** Undo and redo. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer(async () => {
		const { from, to } = await readRequest(request, 'moveWork');
		await moveWork(db(), ...place(params), from, to);
	});
