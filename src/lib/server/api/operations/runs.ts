import { InputError } from '../../../core/errors.ts';
import { may } from '../../../workbench/roles.ts';
import { db } from '../../database.ts';
import { NotFoundError } from '../../http/answers.ts';
import { readId, readRequest } from '../../http/requests.ts';
import { queue } from '../../runs/queue.ts';
import { listRuns, resumeRun, runBy, startRun, stopRun, undoRun } from '../../runs/runs.ts';
import { zipOf } from '../../runs/zip.ts';
import type { Answer, Call, Operation } from '../operation.ts';

const runId = ({ params }: Call) => readId(params.run!, 'run');

async function changeRun(call: Call): Promise<Answer> {
	const id = runId(call);
	const { to } = await readRequest(call.request, 'changeRun');
	if (!may(call.who.role, 'designer') && (await runBy(db(), id)) !== call.who.id)
		throw new InputError(
			'role',
			'Authors stop and take back runs of their own; this one was started by somebody else.'
		);
	if (to === 'stop') await stopRun(db(), id);
	else if (to === 'undo') await undoRun(db(), id);
	else await resumeRun(db(), id, (await queue(db())).send);
	return oneRun(id);
}
async function oneRun(id: string): Promise<Answer> {
	const [run] = await listRuns(db(), id);
	if (!run) throw new NotFoundError('This run is no longer here.');
	return { body: run };
}

/** Runs: started, watched, stopped, taken back. */
export const RUNS_OPERATIONS: readonly Operation[] = [
	{
		method: 'GET',
		path: '/runs',
		id: 'listRuns',
		of: 'Runs',
		summary: 'The last fifty runs, the newest first',
		needs: 'reader',
		gives: { status: 200, schema: 'Runs' },
		run: async () => ({ body: { items: await listRuns(db()) } })
	},
	{
		method: 'POST',
		path: '/runs',
		id: 'startRun',
		of: 'Runs',
		summary: 'Start a run: a style, a setting or a rule for many documents',
		needs: 'author',
		takes: 'startRun',
		makes: true,
		gives: { status: 201, schema: 'Made' },
		run: async ({ request }) => {
			const { id } = await startRun(db(), await readRequest(request, 'startRun'), (await queue(db())).send);
			return { body: { id }, location: `/runs/${id}` };
		}
	},
	{
		method: 'GET',
		path: '/runs/{run}',
		id: 'getRun',
		of: 'Runs',
		summary: 'How far a run is',
		needs: 'reader',
		gives: { status: 200, schema: 'Run' },
		run: (call) => oneRun(runId(call))
	},
	{
		method: 'PUT',
		path: '/runs/{run}',
		id: 'changeRun',
		of: 'Runs',
		summary: 'Stop a run, go on with it, or take it back as a whole',
		needs: 'author',
		takes: 'changeRun',
		gives: { status: 200, schema: 'Run' },
		run: changeRun
	},
	{
		method: 'GET',
		path: '/runs/{run}/zip',
		id: 'takeRun',
		of: 'Runs',
		summary: 'Every finished file of a run, with its account, as a zip',
		needs: 'reader',
		gives: { status: 200, schema: 'file' },
		run: async (call) => ({ file: await zipOf(db(), runId(call)) })
	}
];
