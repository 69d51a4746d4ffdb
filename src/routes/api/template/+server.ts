import type { Gives } from '$lib/server/http/contract.ts';
import { takenName } from '$lib/formats/file-names.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { download, DOCX, uploaded } from '$lib/server/http/files.ts';
import { readChoices, readId } from '$lib/server/http/requests.ts';
import { takeStylesIn } from '$lib/server/styles/arriving.ts';
import { writeTemplate } from '$lib/server/styles/template.ts';
import type { RequestHandler } from './$types.js';

/** A DOCX template of the styles named in `?styles=`, separated by commas. */
export const GET: RequestHandler = ({ url }) =>
	answer(async () => {
		const ids = (url.searchParams.get('styles') ?? '').split(',').filter(Boolean);
		const { name, bytes } = await writeTemplate(
			db(),
			ids.map((id) => readId(id, 'style'))
		);
		return download(bytes, `${name}.docx`, DOCX);
	});

/**
 * Takes every table style of a file in: its bytes are the body, its name is in `?name=`; what becomes of names that are
 * taken by other styles in `?choices=`, as JSON.
 */
export const POST: RequestHandler = ({ request, url }) =>
	answer<Gives<'POST /api/template'>>(async () => {
		const name = takenName(url.searchParams.get('name'), 'template.docx');
		return takeStylesIn(db(), name, await uploaded(request, name), readChoices(url));
	}, 201);
