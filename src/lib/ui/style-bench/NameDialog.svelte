<script lang="ts">
	import type { Style } from '$lib/core/style/types.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Button from '../controls/Button.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import Only from '../people/Only.svelte';
	import { OPENED } from '$lib/formats/kinds.ts';
	import type { StyleUse } from '$lib/workbench/use.ts';
	import { call } from '../api.ts';
	import { notifyError } from '../notices.svelte.ts';

	/** What a style is called, what it is for, where it belongs and may be used, and which way its tables read. */
	let {
		open = $bindable(),
		definition,
		use,
		onsave,
		onuse
	}: {
		open: boolean;
		definition: Style;
		use: StyleUse | null;
		onsave: (definition: Style) => void;
		onuse: (use: StyleUse | null) => void;
	} = $props();
	let where = $state<'anywhere' | 'kinds' | 'document'>('anywhere');
	let kinds = $state<string[]>([]);
	let only = $state('');
	/** Documents to choose from, once they are asked for. */
	let documents = $state.raw<readonly { id: string; name: string }[]>([]);
	$effect(() => {
		if (!open || where !== 'document' || documents.length) return;
		call('GET', '/api/documents?sort=name&most=999')
			.then((found) => (documents = found.documents))
			.catch(notifyError);
	});
	const wanted = $derived(
		where === 'kinds'
			? kinds.length
				? { kinds }
				: undefined
			: where === 'document'
				? only
					? { document: only }
					: undefined
				: null
	);
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
		where = !use ? 'anywhere' : 'document' in use ? 'document' : 'kinds';
		kinds = use && 'kinds' in use ? [...use.kinds] : [];
		only = use && 'document' in use ? use.document : '';
	});
	function save() {
		if (!name.trim() || wanted === undefined) return;
		if (JSON.stringify(wanted) !== JSON.stringify(use)) onuse(wanted);
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
		<Only needs="designer">
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
			<div>
				<p class="mb-1" id="where">Where it is offered</p>
				<Segmented
					labelledby="where"
					options={[
						['anywhere', 'anywhere'],
						['kinds', 'in documents of some kinds'],
						['document', 'in one document']
					]}
					value={where}
					onchange={(to) => (where = to)}
				/>
				{#if where === 'kinds'}
					<fieldset class="mt-2 flex flex-wrap gap-x-4 gap-y-1.5" aria-label="Kinds of documents">
						{#each OPENED as { kind, words } (kind)}
							<label class="flex min-h-6 items-center gap-2"
								><input type="checkbox" class="rounded-sm text-picked" value={kind} bind:group={kinds} />{words}</label
							>
						{/each}
					</fieldset>
				{:else if where === 'document'}
					<select class="field mt-2 w-full" aria-label="Which document" bind:value={only}>
						<option value="">Choose a document</option>
						{#each documents as { id, name } (id)}<option value={id}>{name}</option>{/each}
					</select>
				{/if}
			</div>
		</Only>
	</form>
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button type="submit" needs="designer" form="about" primary disabled={!name.trim() || wanted === undefined}
			>Name it so</Button
		>
	{/snippet}
</Dialog>
