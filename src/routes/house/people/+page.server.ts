import { load as answer } from '$lib/server/http/answers.ts';
import { known } from '$lib/server/http/signed.ts';
import { listMembers } from '$lib/server/people/members.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ locals, depends }) => {
	depends('heptarch:people');
	return answer(async () => {
		const { house, role } = known(locals);
		const { members, invited } = await listMembers((await entrance()).door, house);
		// An invitation is taken back by its id, so only who may do that is told of it.
		return { members, invited: role === 'keeper' ? invited : [] };
	});
};
