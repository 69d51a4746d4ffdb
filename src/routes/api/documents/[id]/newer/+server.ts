import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { previewNewer, putNewer } from '$lib/server/documents/newer.ts';
import { takenName } from '$lib/formats/file-names.ts';
import { uploaded } from '$lib/server/http/files.ts';
import { readId, readIndex, readPairs } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** What a newer file would do: its bytes are the body, its name is in `?name=`, pairs that somebody said in `?pairs=0:2,1:0`. */
export const POST: RequestHandler = ({ params, request, url }) =>
	answer<Gives<'POST /api/documents/*/newer'>>(async () => {
		const name = takenName(url.searchParams.get('name'), 'document');
		const id = readId(params.id, 'document');
		return previewNewer(db(), id, name, await uploaded(request, name), readPairs(url));
	});

/** Puts a newer file in the place of the document's; the version that the sender saw is in `?version=`. */
export const PUT: RequestHandler = ({ params, request, url }) =>
	answer<Gives<'PUT /api/documents/*/newer'>>(async () => {
		const name = takenName(url.searchParams.get('name'), 'document');
		const id = readId(params.id, 'document');
		const version = readIndex(url, 'version');
		const pairs = readPairs(url);
		return putNewer(db(), id, version, { name, bytes: await uploaded(request, name), ...(pairs && { pairs }) });
	});
