import { invalidateAll } from '$app/navigation';
import { listed, pluralWord } from '$lib/core/words.ts';
import { notify } from './notices.svelte.ts';

/** Says which styles were published because a table put them on, and shows the page with those editions. */
export async function tellPublished(published: readonly string[] = []): Promise<void> {
	if (!published.length) return;
	const names = listed(published.map((name) => `“${name}”`));
	notify(
		`${names} had no edition: ${pluralWord(published.length, 'its draft is', 'their drafts are')} published as edition 1.`
	);
	await invalidateAll();
}
