<script lang="ts">
	import { live } from './live.svelte.ts';

	/** Who else looks at what is shown. */
</script>

{#each live.others as { id, name } (id)}
	<span class="chip shrink-0" role="status"
		><span class="me-1.5 inline-block h-2 w-2 rounded-full bg-picked" aria-hidden="true"></span>{name} is here, too</span
	>
{/each}
