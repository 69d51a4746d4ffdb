<script lang="ts">
	import { listed, plural } from '$lib/core/words.ts';
	import { live } from './live.svelte.ts';

	/** Who else looks at what is shown. */
	const names = $derived(live.others.map(({ name }) => name));
	const shown = $derived(names.length < 3 ? names : [names[0]!, plural(names.length - 1, 'other')]);
</script>

{#if names.length}
	<span class="chip max-w-64 shrink-0" role="status" title={listed(names)}
		><span class="inline-block h-2 w-2 shrink-0 rounded-full bg-picked" aria-hidden="true"></span><span class="truncate"
			>{listed(shown)} {names.length > 1 ? 'are' : 'is'} here, too</span
		></span
	>
{/if}
