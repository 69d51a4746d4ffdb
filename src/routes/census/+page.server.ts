import { load as answer } from '$lib/server/http/answers.ts';
import { censusFacts, loadFindings, loadLooks, loadShare, loadVariations } from '$lib/server/census/read.ts';
import { db } from '$lib/server/database.ts';
import { readCensusOf } from '$lib/server/http/requests.ts';
import { listStyles } from '$lib/server/styles/styles.ts';
import { CENSUS_VIEWS, censusView } from '$lib/ui/census/views.ts';
import type { PageServerLoad } from './$types.js';

const LOADED = { share: loadShare, looks: loadLooks, settings: loadVariations, findings: loadFindings } as const;

export const load: PageServerLoad = ({ url, depends }) => {
	depends('heptarch:census');
	return answer(async () => {
		const of = readCensusOf(url);
		const view = censusView(url);
		const facts = await censusFacts(db(), of);
		const styles = (await listStyles(db()))
			.filter(({ aside }) => !aside)
			.map(({ id, definition }) => ({ id, name: definition.name }));
		// Each part is asked for alone: what somebody looks at.
		const part = Object.fromEntries(
			await Promise.all(
				CENSUS_VIEWS.map(async ({ view: one }) => [one, one === view ? await LOADED[one](db(), of) : null])
			)
		) as { [V in keyof typeof LOADED]: Awaited<ReturnType<(typeof LOADED)[V]>> | null };
		return { of, view, facts, styles, ...part };
	});
};
