import { policyInNames } from '$lib/server/census/judged.ts';
import { db } from '$lib/server/database.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { answer } from '$lib/server/http/answers.ts';
import { download, fileName } from '$lib/server/http/files.ts';
import { EMPTY_POLICY } from '$lib/workbench/house.ts';
import type { RequestHandler } from './$types.js';

/** The house's policy as its file, for builds of documents: styles by their names. */
export const GET: RequestHandler = () =>
	answer(async () => {
		const { name, policy } = await loadHouse(db());
		const text = JSON.stringify({ ...(await policyInNames(db(), policy ?? EMPTY_POLICY)), name }, null, 2) + '\n';
		return download(text, `${fileName(name)}.policy.json`, 'application/json');
	});
