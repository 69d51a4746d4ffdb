<script lang="ts">
	import DocumentPage from './DocumentPage.svelte';

	let { data } = $props();
</script>

{#key data.document.stretch.first}<DocumentPage {data} />{/key}
