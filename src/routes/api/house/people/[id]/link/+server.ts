import { answer } from '$lib/server/http/answers.ts';
import { readId } from '$lib/server/http/requests.ts';
import { known } from '$lib/server/http/signed.ts';
import { passwordLink } from '$lib/server/people/entrance.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** A link by which somebody who cannot sign in sets a new password, told now and never again. */
export const POST: RequestHandler = ({ params, locals, url }) =>
	answer(async () => ({
		link: `${url.origin}/enter/${await passwordLink(await entrance(), known(locals), readId(params.id, 'person'))}`
	}));
