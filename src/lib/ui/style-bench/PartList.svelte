<script lang="ts">
	import { ROLES } from '$lib/core/roles/index.ts';
	import { COLUMN_KINDS } from '$lib/core/table/columns.ts';
	import { kindPart, namedPart, parsePart, partHelp, partWords } from '$lib/core/style/parts.ts';
	import type { Bench } from './bench.svelte.ts';
	import Segmented from '../controls/Segmented.svelte';
	import Button from '../controls/Button.svelte';

	/** The parts of the chosen rank: which are set, which come from a base, and how to get more of them. */
	let { bench }: { bench: Bench } = $props();
	let adding = $state(false);
	let named = $state('');

	/** The family of numbered parts that this rank can have more of, with what one more is called. */
	const more = $derived(
		bench.rank === 4
			? ROLES.filter(({ levels }) => levels).map(
					({ family, words, isHeader }) => [family, isHeader ? 'tier' : `${words} level`] as const
				)
			: []
	);
	const columnNames = $derived(
		[
			...new Set(
				bench.specimens.flatMap(({ table }) => table.columnInfo.map(({ name }) => name).filter((name) => name.trim()))
			)
		].sort()
	);
	function addLevel(family: string) {
		const numbers = bench.parts.map((name) => parsePart(name)!).filter((part) => part.family === family);
		bench.choose(`${family}:${Math.max(0, ...numbers.map(({ number }) => number)) + 1}`);
		adding = false;
	}
	function addNamed() {
		const name = named.trim().replaceAll('"', '');
		if (!name) return;
		bench.choose(namedPart(name));
		adding = false;
		named = '';
	}
	const count = (name: string) => bench.ownCounts.get(name) ?? 0;
	const isInherited = (name: string) => !count(name) && bench.flat.parts.has(name);
	const shown = $derived(bench.parts.includes(bench.place) ? bench.parts : [...bench.parts, bench.place]);
</script>

<Segmented
	class="px-4 pt-3 pb-1.5"
	label="Parts"
	options={shown.map((name) => [name, partWords(name)] as const)}
	value={bench.place}
	onchange={(name) => bench.choose(name)}
	hint={partHelp}
	optionClass={(name, isOn) => (!isOn && (count(name) || isInherited(name)) ? 'text-ink!' : '')}
>
	{#snippet option(name, words)}
		{words}{#if count(name)}<span class="tabular-nums">· {count(name)}</span>{:else if isInherited(name)}<span
				title="set in {bench.base?.definition.name}">· base</span
			>{/if}
	{/snippet}
	{#snippet after()}
		{#if more.length || bench.rank === 3}
			<button type="button" class="chip" aria-expanded={adding} onclick={() => (adding = !adding)}
				>+ {bench.rank === 3 ? 'column' : 'level'}</button
			>
		{/if}
	{/snippet}
</Segmented>
<p class="border-b border-hairline px-4 pb-2 text-[12px] text-quiet">{partHelp(bench.place)}</p>
{#if adding}
	<div class="border-b border-hairline bg-desk px-4 py-3">
		{#if bench.rank === 3}
			<form
				class="flex gap-2"
				onsubmit={(event) => {
					event.preventDefault();
					addNamed();
				}}
			>
				<input
					class="field min-w-0 flex-1"
					list="column-names"
					aria-label="Name of a column"
					placeholder="A column’s name"
					bind:value={named}
				/>
				<datalist id="column-names"
					>{#each columnNames as name (name)}<option value={name}></option>{/each}</datalist
				>
				<Button type="submit" small disabled={!named.trim()}>Style this column</Button>
			</form>
			<p class="mt-2 text-[12px] text-quiet">
				Every column whose lowest header reads so. Kinds: {COLUMN_KINDS.map((kind) =>
					partWords(kindPart(kind)).replace(' columns', '')
				).join(', ')} stand in the list above.
			</p>
		{:else}
			<div class="flex flex-wrap gap-1.5">
				{#each more as [family, words] (family)}<Button small onclick={() => addLevel(family)}>one more {words}</Button
					>{/each}
			</div>
		{/if}
	</div>
{/if}
