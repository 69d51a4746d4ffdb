import { describeError } from '$lib/server/http/answers.ts';
import { openLink } from '$lib/server/people/links.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { PageServerLoad } from './$types.js';

/** What a link is for; looking does not use it up, as programs look at links before people do. */
export const load: PageServerLoad = async ({ params }) => {
	try {
		const { door } = await entrance();
		const { kind, houseId, role, name } = await openLink(door, params.token);
		const house = houseId
			? await door.selectFrom('houses').select('name').where('id', '=', houseId).executeTakeFirst()
			: undefined;
		return { link: { kind, role, name, house: house?.name ?? null } };
	} catch (error) {
		const described = describeError(error);
		if (!described) throw error;
		return { problem: described.body.message };
	}
};
