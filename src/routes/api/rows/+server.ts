import type { Gives } from '$lib/server/http/contract.ts';
import { takenName } from '$lib/formats/file-names.ts';
import { readSheets } from '$lib/formats/sheets/sheets.ts';
import { answer } from '$lib/server/http/answers.ts';
import { uploaded } from '$lib/server/http/files.ts';
import type { RequestHandler } from './$types.js';

/** The rows of a CSV, TSV, XLSX or ODS file, by sheet; nothing is kept of it. Its bytes are the body, its name is in `?name=`. */
export const POST: RequestHandler = ({ request, url }) =>
	answer<Gives<'POST /api/rows'>>(async () => {
		const name = takenName(url.searchParams.get('name'), 'rows.csv');
		return readSheets(await uploaded(request, name), name);
	});
