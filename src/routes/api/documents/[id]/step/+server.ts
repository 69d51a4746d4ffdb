import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { moveToStep, openById } from '$lib/server/documents.ts';
import { readId, readRequest } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** Where a document stands; with `table`, also after which of its blocks that table comes. */
export const GET: RequestHandler = ({ params, url }) =>
	answer(async () => {
		const { found, document } = await openById(db(), readId(params.id, 'document'));
		const table = url.searchParams.get('table');
		const block = document.blocks.findIndex((one) => one.kind === 'table' && String(one.index) === table);
		return { step: found.step, block };
	});

/** Undo and redo. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer(async () => {
		const { from, to } = await readRequest(request, 'moveStep');
		return moveToStep(db(), readId(params.id, 'document'), from, to);
	});
