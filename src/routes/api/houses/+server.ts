import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { known, workInAs } from '$lib/server/http/signed.ts';
import { beginHouse } from '$lib/server/people/founding.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Begins another house, whose keeper is whoever begins it, and works in it. */
export const POST: RequestHandler = ({ request, locals, cookies }) =>
	answer(async () => {
		const { name } = await readRequest(request, 'nameHouse');
		const { person, session } = known(locals);
		const { door } = await entrance();
		const house = await beginHouse(door, name, person);
		await workInAs({ cookies, session }, house);
		return { id: house };
	}, 201);
