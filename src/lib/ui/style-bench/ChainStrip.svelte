<script lang="ts">
	import { listed, pluralWord } from '$lib/core/words.ts';
	import { detach, rebase, repeated, withLeafAt } from '$lib/core/style/edit.ts';
	import { flatten } from '$lib/core/style/inherit.ts';
	import { leavesOf } from '$lib/core/style/leaves.ts';
	import { notifyError } from '../notices.svelte.ts';
	import type { Bench } from './bench.svelte.ts';
	import Button from '../controls/Button.svelte';
	import Popover from '../controls/Popover.svelte';
	import Only from '../people/Only.svelte';

	/** What the style builds on: the chain, and ways to change it. */
	let { bench }: { bench: Bench } = $props();

	const settings = (parts: Record<string, Parameters<typeof leavesOf>[0]>) =>
		Object.values(parts).reduce((sum, set) => sum + leavesOf(set).size, 0);
	const own = $derived(settings(bench.draft.definition.parts));
	const same = $derived(repeated(bench.draft.definition, bench.find));
	/** Names of the styles that build on this one. */
	const follows = $derived(bench.styles.find(({ id }) => id === bench.id)?.basesOf ?? []);
	const idOf = (name: string) => bench.styles.find(({ definition }) => definition.name === name)?.id;

	function turn(reference: string | null) {
		try {
			const next = rebase(bench.draft.definition, reference, bench.find);
			flatten(next, bench.find);
			bench.change(
				next,
				reference ? `builds on ${bench.book.get(reference)?.definition.name} now` : 'builds on nothing now'
			);
		} catch (error) {
			notifyError(error);
		}
	}
	function dropRepeated() {
		let next = bench.draft.definition;
		for (const { place, path } of same) next = withLeafAt(next, place, path, undefined);
		bench.change(next, `${same.length} repeated settings left to the base`);
	}
</script>

<nav class="flex min-w-0 flex-wrap items-center gap-1.5" aria-label="What it builds on">
	<span class="chip on shrink-0">{bench.definition.name} · {own} set</span>
	{#each bench.chain as base (base.name)}
		<span class="text-quiet" aria-hidden="true">on</span>
		<a class="chip hover:text-ink!" href="/stylebook/{idOf(base.name)}" title="Open {base.name}"
			>{base.name} · {settings(base.parts)} set</a
		>
	{:else}
		<span class="text-quiet">builds on nothing</span>
	{/each}
	<Popover buttonClass="chip" name="Change what it builds on" class="start-0 end-auto! w-80 p-3!">
		{#snippet button()}change…{/snippet}
		{#snippet children(close)}
			<Only needs="designer">
				<label class="block"
					>Build on
					<select
						class="field mt-1 w-full"
						value={bench.draft.definition.basedOn ?? ''}
						onchange={(event) => turn(event.currentTarget.value || null)}
					>
						<option value="">nothing</option>
						{#each bench.styles.filter(({ id, aside }) => id !== bench.id && (!aside || id === bench.draft.definition.basedOn)) as { id, definition } (id)}<option
								value={id}>{definition.name}</option
							>{/each}
					</select>
				</label>
				<p class="mt-1 text-[12px] text-quiet">What this style sets itself stays; what it does not comes from there.</p>
				{#if follows.length}
					<p class="mt-1 text-[12px] text-quiet">
						{listed(follows)}
						{pluralWord(follows.length, 'builds', 'build')} on this style and {pluralWord(
							follows.length,
							'follows',
							'follow'
						)}.
					</p>
				{/if}
				{#if bench.base}
					<Button
						small
						class="mt-3"
						title="Everything that comes from {bench.base.definition.name} is said here; nothing changes on the tables"
						onclick={() => {
							bench.change(detach(bench.draft.definition, bench.find), 'detached');
							close();
						}}>Detach, and keep the look</Button
					>
				{/if}
				{#if same.length}
					<Button small class="mt-2" onclick={dropRepeated}
						>Leave {same.length} repeated {pluralWord(same.length, 'setting')} to the base</Button
					>
				{/if}
			</Only>
		{/snippet}
	</Popover>
</nav>
