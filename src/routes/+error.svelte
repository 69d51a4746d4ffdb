<script lang="ts">
	import { page } from '$app/state';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import Button from '$lib/ui/controls/Button.svelte';
</script>

<svelte:head><title>{page.status} · Heptarch</title></svelte:head>
<TopBar title={page.status === 404 ? 'Not here' : 'That did not work'} />
<main class="p-8">
	<p class="max-w-xl text-[15px]">{page.error?.message}</p>
	<p class="mt-4"><Button href="/documents">Go to the documents</Button></p>
</main>
