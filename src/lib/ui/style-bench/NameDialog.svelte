<script lang="ts">
	import type { Style } from '$lib/core/style/types.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Button from '../controls/Button.svelte';

	/** What a style is called, what it is for, where it belongs and which way its tables read. */
	let {
		open = $bindable(),
		definition,
		onsave
	}: { open: boolean; definition: Style; onsave: (definition: Style) => void } = $props();
	let name = $state('');
	let description = $state('');
	let category = $state('');
	let reading = $state<'' | 'down' | 'up'>('');

	$effect(() => {
		if (!open) return;
		name = definition.name;
		description = definition.description ?? '';
		category = definition.category ?? '';
		reading = definition.reading ?? '';
	});
	function save() {
		if (!name.trim()) return;
		const { description: _d, category: _c, reading: _r, ...rest } = definition;
		onsave({
			...rest,
			name: name.trim(),
			...(description.trim() && { description: description.trim() }),
			...(category.trim() && { category: category.trim() }),
			...(reading && { reading })
		});
		open = false;
	}
</script>

<Dialog bind:open title="Name and purpose">
	<form
		id="about"
		class="flex flex-col gap-3"
		onsubmit={(event) => {
			event.preventDefault();
			save();
		}}
	>
		<label class="flex flex-col gap-1">Name<input class="field" required maxlength="200" bind:value={name} /></label>
		<label class="flex flex-col gap-1"
			>What it is for<textarea class="field" rows="3" maxlength="4000" bind:value={description}></textarea></label
		>
		<label class="flex flex-col gap-1">Category<input class="field" maxlength="200" bind:value={category} /></label>
		<label class="flex flex-col gap-1"
			>Its tables read
			<select class="field" bind:value={reading}>
				<option value="">as its base says, else downwards</option>
				<option value="down">downwards, the header on top</option>
				<option value="up">upwards, the header at the foot</option>
			</select></label
		>
	</form>
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button type="submit" form="about" primary disabled={!name.trim()}>Name it so</Button>
	{/snippet}
</Dialog>
