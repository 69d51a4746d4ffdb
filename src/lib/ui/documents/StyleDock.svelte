<script lang="ts">
	import type { Aspect } from '$lib/core/style/types.ts';
	import type { Emu } from '$lib/core/units.ts';
	import type { Excerpt } from '$lib/workbench/excerpt.ts';
	import type { BookStyle, Stylebook } from '$lib/workbench/stylebook.ts';
	import Button from '../controls/Button.svelte';
	import List from '../controls/List.svelte';
	import PartsAndCarry from './PartsAndCarry.svelte';
	import StylePicture from '../stylebook/StylePicture.svelte';

	interface Props {
		book: Stylebook<BookStyle>;
		sample: Excerpt;
		widths: readonly Emu[];
		/** The style that the picked table wears or is about to. */
		chosen: string | undefined;
		partsOff: readonly string[];
		carry: readonly Aspect[];
		/** Parts that this table has, with what to call them. */
		parts: readonly { name: string; words: string }[];
		onpoint: (id: string | undefined) => void;
		onchoose: (id: string) => void;
		onparts: (off: string[]) => void;
		oncarry: (carry: Aspect[]) => void;
	}
	let { book, sample, widths, chosen, partsOff, carry, parts, onpoint, onchoose, onparts, oncarry }: Props = $props();
	let search = $state('');
	const offered = $derived(book.offered(chosen));
	const found = $derived.by(() => {
		const words = search.trim().toLowerCase();
		if (!words) return offered;
		return offered.filter(({ id, definition: { name, description = '', category = '' } }) =>
			`${name} ${description} ${category} ${book.sentence(id)}`.toLowerCase().includes(words)
		);
	});
	/** Each is a picture of the picked table: so many at a time. */
	const STEP = 40;
	let most = $state(STEP);
	const shown = $derived.by(() => {
		const first = found.slice(0, most);
		const own = first.some(({ id }) => id === chosen) ? undefined : found.find(({ id }) => id === chosen);
		return own ? [own, ...first] : first;
	});
</script>

{#if offered.length > 6}
	<input
		class="field mb-3 w-full"
		type="search"
		placeholder="Find a style"
		aria-label="Find a style"
		bind:value={search}
		data-find
	/>
{/if}
<List
	label="Styles"
	items={shown}
	key={({ id }) => id}
	{chosen}
	onchoose={({ id }) => onchoose(id)}
	onpoint={(style) => onpoint(style?.id)}
	hint={({ id }) => book.sentence(id)}
	columns={2}
	class="grid grid-cols-2 gap-2.5"
	itemClass={(_, isOn) => [
		'overflow-hidden rounded-lg border bg-sheet text-start',
		isOn ? 'border-picked ring-1 ring-picked' : 'border-hairline hover:border-quiet'
	]}
>
	{#snippet item({ id, definition })}
		<StylePicture
			style={book.flat(id)}
			house={book.house}
			{sample}
			{widths}
			scale={sample.table.columns > 4 ? 0.3 : 0.36}
		/>
		<span class="block border-t border-hairline px-2.5 py-1.5">
			<span class="block truncate font-semibold">{definition.name}</span>
			<span class="block truncate text-[12px] text-quiet">{definition.category ?? 'no category'}</span>
		</span>
	{/snippet}
	{#snippet empty()}<p class="col-span-2 text-quiet">No style matches “{search}”.</p>{/snippet}
</List>
{#if found.length > most}
	<p class="mt-3 flex items-center gap-3 text-quiet">
		{most} of {found.length} styles
		<Button small onclick={() => (most += STEP)}>More</Button>
	</p>
{/if}

<PartsAndCarry {parts} {partsOff} {carry} {onparts} {oncarry} />
