import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { InputError } from '$lib/core/errors.ts';
import { known } from '$lib/server/http/signed.ts';
import { may } from '$lib/workbench/roles.ts';
import { queue } from '$lib/server/runs/queue.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { resumeRun, runBy, stopRun, undoRun } from '$lib/server/runs/runs.ts';
import type { RequestHandler } from './$types.js';

/** Stops a run, goes on with it, or takes it back as a whole. */
export const PUT: RequestHandler = ({ params, request, locals }) =>
	answer<Gives<'PUT /api/runs/*'>>(async () => {
		const { to } = await readRequest(request, 'changeRun');
		const id = readId(params.id, 'run');
		const { role, person } = known(locals);
		if (!may(role, 'designer') && (await runBy(db(), id)) !== person)
			throw new InputError(
				'role',
				'Authors stop and take back runs of their own; this one was started by somebody else.'
			);
		if (to === 'stop') return stopRun(db(), id);
		if (to === 'undo') return undoRun(db(), id);
		return resumeRun(db(), id, (await queue(db())).send);
	});
