import { load as answer } from '$lib/server/http/answers.ts';
import type { LayoutServerLoad } from './$types.js';

/** Who works here, for what every page shows of it. */
export const load: LayoutServerLoad = ({ locals, depends }) => {
	depends('heptarch:who');
	return answer(async () => {
		if (locals.unknown !== undefined) throw locals.unknown;
		const { who } = locals;
		return {
			who: who && { ...pick(who), isSignedIn: who.session !== undefined }
		};
	});
};

const pick = ({ person, name, house, houseName, role, houses }: NonNullable<App.Locals['who']>) => ({
	person,
	name,
	house,
	houseName,
	role,
	houses
});
