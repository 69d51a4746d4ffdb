import { styleText } from '$lib/core/style/canonical.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { download, fileName } from '$lib/server/http/files.ts';
import { frozenDraft } from '$lib/server/styles/editions.ts';
import { readId } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** The style as a file of its own, with its bases, inks and type roles. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const style = await frozenDraft(db(), readId(params.id, 'style'));
		return download(styleText(style), `${fileName(style.name)}.heptarch.json`, 'application/json');
	});
