<script lang="ts">
	import type { LeafValue } from '$lib/core/style/types.ts';
	import List from '../../controls/List.svelte';
	import Popover from '../../controls/Popover.svelte';
	import ColourField from './ColourField.svelte';

	/** An ink by name, any colour, or none on purpose; told apart from what is not set. */
	let {
		value,
		inks,
		label,
		onset,
		isNoneOffered = true
	}: {
		value: LeafValue | undefined;
		inks: Readonly<Record<string, string>>;
		label: string;
		onset: (value: string) => void;
		isNoneOffered?: boolean;
	} = $props();
	const shown = $derived(value === undefined ? undefined : String(value));
	const names = $derived([...Object.keys(inks), ...(isNoneOffered ? ['none'] : [])]);
	const colour = (name: string | undefined) =>
		name === undefined || name === 'none' ? undefined : (inks[name] ?? (name.startsWith('#') ? name : undefined));
</script>

{#snippet swatch(name: string | undefined)}
	<span
		data-swatch={name === undefined ? 'not set' : name === 'none' ? 'none' : 'set'}
		class={[
			'h-4 w-4 shrink-0 rounded border',
			name === undefined ? 'border-dashed border-quiet' : 'border-hairline',
			name === 'none' && 'none'
		]}
		style={colour(name) ? `background:${colour(name)}` : ''}
	></span>
{/snippet}

<Popover
	label="{label}: {shown ?? 'not set'}"
	buttonClass="field flex w-full items-center gap-2 text-start"
	class="w-64"
>
	{#snippet button()}{@render swatch(shown)}<span class={['truncate', shown === undefined && 'text-quiet']}
			>{shown ?? 'not set'}</span
		>{/snippet}
	{#snippet children(close)}
		{@const choose = (name: string) => {
			onset(name);
			close();
		}}
		<List
			label="Inks"
			items={names}
			key={(name) => name}
			chosen={shown}
			onchoose={choose}
			columns={2}
			class="grid grid-cols-2 gap-0.5"
			itemClass={(_, isOn) => [
				'flex min-h-7 items-center gap-2 rounded px-1.5 text-start hover:bg-desk',
				isOn && 'bg-picked-wash font-semibold'
			]}
		>
			{#snippet item(name)}{@render swatch(name)}<span class="truncate" title={name}>{name}</span>{/snippet}
		</List>
		<div class="mt-1.5 border-t border-hairline pt-2">
			<p class="mb-1 text-[12px] text-quiet">Another colour</p>
			<ColourField value={colour(shown)} label="{label}, another colour" onset={choose} />
		</div>
	{/snippet}
</Popover>

<style>
	.none {
		background: linear-gradient(to top right, transparent 46%, var(--color-error) 46% 54%, transparent 54%);
	}
</style>
