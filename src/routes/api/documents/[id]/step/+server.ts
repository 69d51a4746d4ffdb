import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { moveToStep } from '$lib/server/documents/steps.ts';
import { openById } from '$lib/server/documents/open.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** Where a document stands; with `table`, also after which of its blocks that table comes. */
export const GET: RequestHandler = ({ params, url }) =>
	answer<Gives<'GET /api/documents/*/step'>>(async () => {
		const { found, document } = await openById(db(), readId(params.id, 'document'));
		const table = url.searchParams.get('table');
		const block = document.blocks.findIndex((one) => one.kind === 'table' && String(one.index) === table);
		return { version: found.version, block };
	});

/** Moves to any other step: undo, redo. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/documents/*/step'>>(async () => {
		const { version, to } = await readRequest(request, 'moveStep');
		return moveToStep(db(), readId(params.id, 'document'), version, to);
	});
