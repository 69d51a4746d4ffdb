import { canonicalStyle } from '$lib/core/style/canonical.ts';
import { load as answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { loadSpecimens } from '$lib/server/styles/specimens.ts';
import { frozenDraft, listEditions } from '$lib/server/styles/editions.ts';
import { loadHouse } from '$lib/server/house/house.ts';
import { openProposal, proposalsSentBack } from '$lib/server/styles/proposals.ts';
import { readId } from '$lib/server/http/requests.ts';
import { isChanged } from '$lib/workbench/impact.ts';
import { impactOf, impactPictures, listRollouts } from '$lib/server/runs/rollouts.ts';
import { chosenSpecimens, loadStyle } from '$lib/server/styles/styles.ts';
import type { PageServerLoad } from './$types.js';

/** Tables that are shown before and after at once; others when they are unfolded. */
const PICTURES = 6;

export const load: PageServerLoad = ({ params, depends }) => {
	depends('heptarch:editions');
	return answer(async () => {
		const id = readId(params.id, 'style');
		const style = await loadStyle(db(), id);
		const draft = await frozenDraft(db(), id);
		const editions = await listEditions(db(), id);
		const newest = editions[0];
		const isPublished = !!newest && JSON.stringify(canonicalStyle(newest.frozen)) === JSON.stringify(draft);
		const house = await loadHouse(db());
		const proposal = await openProposal(db(), id);
		const impacts = await impactOf(db(), id, proposal?.frozen ?? (isPublished ? newest.number : undefined));
		const specimens = await loadSpecimens(db(), 1, await chosenSpecimens(db(), id));
		return {
			style,
			draft,
			editions,
			isPublished,
			house,
			proposal: proposal ?? null,
			sentBack: await proposalsSentBack(db(), id),
			impacts,
			pictures: await impactPictures(db(), impacts.filter(isChanged).slice(0, PICTURES)),
			rollouts: await listRollouts(db(), id),
			specimen: specimens[0] ?? null
		};
	});
};
