import { db } from '$lib/server/database.ts';
import { loadDesk } from '$lib/server/desk/desk.ts';
import { load as answer } from '$lib/server/http/answers.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ depends }) => {
	depends('heptarch:desk');
	return answer(() => loadDesk(db()));
};
