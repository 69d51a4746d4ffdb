import { tokensOf } from '$lib/core/share/tokens.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { download, fileName } from '$lib/server/http/files.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import type { RequestHandler } from './$types.js';

/** The house's inks and type roles as Design Tokens. */
export const GET: RequestHandler = () =>
	answer(async () => {
		const house = await loadHouse(db());
		const text = JSON.stringify(tokensOf(house), null, 2) + '\n';
		return download(text, `${fileName(house.name)}.tokens.json`, 'application/design-tokens+json');
	});
