<script lang="ts">
	import Menu from '../controls/Menu.svelte';

	/** The files that a style can be taken out as. */
	let { id }: { id: string } = $props();
</script>

<Menu
	words="Take it out…"
	entries={[
		{ href: `/api/styles/${id}/file`, name: 'Style file', words: 'with its bases, inks and type roles' },
		{ href: `/api/styles/${id}/css`, name: 'CSS', words: 'for web pages; inks as custom properties' },
		{ href: `/api/template?styles=${id}`, name: 'Word-processing template', words: 'DOCX in which authors pick it' }
	]}
/>
