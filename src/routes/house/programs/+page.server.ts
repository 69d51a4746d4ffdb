import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { listTokens } from '$lib/server/programs/tokens.ts';
import { listWebhooks } from '$lib/server/programs/webhooks.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = ({ depends }) => {
	depends('heptarch:programs');
	return answer(async () => ({ tokens: await listTokens(db()), webhooks: await listWebhooks(db()) }));
};
