import { load as answer } from '$lib/server/http/answers.ts';
import { known } from '$lib/server/http/signed.ts';
import { providerOf } from '$lib/server/people/auth.ts';
import { listSessions, signsInBy } from '$lib/server/people/sessions.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ locals, depends }) => {
	depends('heptarch:me');
	return answer(async () => {
		const { door } = await entrance();
		const { person, session } = known(locals);
		const provider = providerOf(process.env)?.name;
		return { provider, ...(await signsInBy(door, person)), sessions: await listSessions(door, person, session) };
	});
};
