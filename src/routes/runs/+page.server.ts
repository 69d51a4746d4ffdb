import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { listRuns } from '$lib/server/runs/runs.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ depends }) => {
	depends('heptarch:runs');
	return answer(async () => ({ runs: await listRuns(db()) }));
};
