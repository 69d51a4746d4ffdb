<script lang="ts">
	import { inkUses, mapInks } from '$lib/core/style/edit.ts';
	import type { Style } from '$lib/core/style/types.ts';
	import type { Bench } from './bench.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import StylePicture from '../stylebook/StylePicture.svelte';
	import InkField from './fields/InkField.svelte';
	import Button from '../controls/Button.svelte';

	/** Another set of inks for the whole style: each ink that it names, and what takes its place; seen at once. */
	let { open = $bindable(), bench }: { open: boolean; bench: Bench } = $props();
	let chosen = $state<Record<string, string>>({});
	$effect(() => {
		if (open) chosen = {};
	});
	const uses = $derived(inkUses(bench.draft.definition));
	const next: Style = $derived(mapInks(bench.draft.definition, (ink) => chosen[ink] ?? ink));
	/** Inks of the other styles, to take over as a set: the one used most for the one used most. */
	const sets = $derived(
		bench.styles
			.filter(({ id }) => id !== bench.id)
			.flatMap(({ id, definition }) => {
				const inks = byUse(inkUses(definition));
				return inks.length ? [{ id, name: definition.name, inks }] : [];
			})
	);
	const byUse = (counts: ReadonlyMap<string, number>) =>
		[...counts]
			.filter(([ink]) => ink !== 'paper')
			.sort(([, a], [, b]) => b - a)
			.map(([ink]) => ink);
	const takeSet = (inks: readonly string[]) =>
		(chosen = Object.fromEntries(byUse(uses).flatMap((ink, i) => (inks[i] ? [[ink, inks[i]]] : []))));
	const isChanged = $derived(Object.entries(chosen).some(([from, to]) => from !== to));
	const hex = (ink: string) => bench.inks[ink] ?? (ink.startsWith('#') ? ink : 'transparent');
</script>

<Dialog bind:open title="Re-ink “{bench.draft.definition.name}”" wide>
	{#if uses.size === 0}
		<p>This style names no ink of its own{bench.base ? `; it has them from ${bench.base.definition.name}` : ''}.</p>
	{:else}
		<div class="grid grid-cols-[1fr_280px] gap-5">
			<div>
				<h3 class="mb-1 font-semibold">Each ink</h3>
				{#each [...uses] as [ink, count] (ink)}
					<div class="grid grid-cols-[minmax(0,1fr)_auto_150px] items-center gap-2 border-b border-hairline py-1.5">
						<span class="flex items-center gap-2 truncate"
							><span class="h-4 w-4 rounded border border-hairline" style="background:{hex(ink)}"></span>{ink}
							<span class="text-[12px] text-quiet">· {count}</span></span
						>
						<span class="text-quiet">becomes</span>
						<InkField
							value={chosen[ink] ?? ink}
							inks={bench.inks}
							label="In place of {ink}"
							isNoneOffered={false}
							onset={(to) => (chosen = { ...chosen, [ink]: to })}
						/>
					</div>
				{/each}
			</div>
			<div>
				<h3 class="mb-1 font-semibold">As it would look</h3>
				<div class="card mb-3 overflow-hidden" data-reinked>
					<StylePicture
						style={bench.book.flatten(next)}
						house={bench.house}
						sample={bench.specimens[0]!}
						{...bench.specimens[0]!.widths && { widths: bench.specimens[0]!.widths }}
						scale={0.42}
						height={190}
					/>
				</div>
				<h3 class="mb-1 font-semibold">Or the inks of</h3>
				<div class="flex flex-wrap gap-1.5">
					{#each sets as { id, name, inks } (id)}
						<button type="button" class="chip" onclick={() => takeSet(inks)}
							>{name}
							{#each inks.slice(0, 3) as ink (ink)}<span class="h-3 w-3 rounded-full" style="background:{hex(ink)}"
								></span>{/each}</button
						>
					{/each}
				</div>
			</div>
		</div>
	{/if}
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button
			primary
			disabled={!isChanged}
			onclick={() => {
				bench.change(next, 're-inked');
				open = false;
			}}>Re-ink it</Button
		>
	{/snippet}
</Dialog>
