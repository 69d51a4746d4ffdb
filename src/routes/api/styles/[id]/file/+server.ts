import { styleText } from '$lib/core/style/canonical.ts';
import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId } from '$lib/server/requests.ts';
import { styleFile } from '$lib/server/styles.ts';
import type { RequestHandler } from './$types.js';

/** The style as a file of its own, with its bases, inks and type roles. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const style = await styleFile(db(), readId(params.id, 'style'));
		const file = `${style.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.heptarch.json`;
		return new Response(styleText(style), {
			headers: {
				'Content-Type': 'application/json',
				'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}`
			}
		});
	});
