import { styleCss } from '$lib/core/share/css.ts';
import { flatten } from '$lib/core/style/inherit.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { download, fileName } from '$lib/server/http/files.ts';
import { frozenDraft } from '$lib/server/styles/editions.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { readId } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** The style as a CSS file. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const style = flatten(await frozenDraft(db(), readId(params.id, 'style')));
		return download(styleCss(style, await loadHouse(db())), `${fileName(style.name)}.css`, 'text/css');
	});
