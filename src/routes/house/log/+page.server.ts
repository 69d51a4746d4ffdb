import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { listLog } from '$lib/server/house/log.ts';
import { logQuery } from '$lib/server/http/log-query.ts';
import { known } from '$lib/server/http/signed.ts';
import { listMembers } from '$lib/server/people/members.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ locals, url, depends }) => {
	depends('heptarch:log');
	return answer(async () => {
		const asked = logQuery(url.searchParams);
		const { members } = await listMembers((await entrance()).door, known(locals).house);
		return { entries: await listLog(db(), asked), asked, members };
	});
};
