<script lang="ts">
	import { page } from '$app/state';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
</script>

<svelte:head><title>{page.status} · Heptarch</title></svelte:head>
<TopBar title={page.status === 404 ? 'Not here' : 'That did not work'} />
<main class="p-8">
	<p class="max-w-xl text-[15px]">{page.error?.message}</p>
	<p class="mt-4"><a class="button" href="/documents">Go to the documents</a></p>
</main>
