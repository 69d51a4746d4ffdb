<script lang="ts" generics="Item">
	import type { Snippet } from 'svelte';
	import type { ClassValue } from 'svelte/elements';
	import { roving } from './roving.ts';

	/**
	 * Things to choose one of, each shown as it is. Arrow keys go from one to the next; Enter or Space chooses.
	 *
	 * It draws all its items. The lists of Heptarch's screens hold tens of things of different heights, which search
	 * narrows; what is long is the rows of a table, and those are drawn by `ui/table/rows.svelte.ts`, as no library draws
	 * merged cells and shared edges across rows that are not all there.
	 */
	interface Props {
		label: string;
		items: readonly Item[];
		/** Tells items apart. */
		key: (item: Item) => string;
		chosen: string | undefined;
		onchoose: (item: Item) => void;
		/** The item the pointer or the focus is on; undefined as it leaves. */
		onpoint?: (item: Item | undefined) => void;
		hint?: (item: Item) => string;
		columns?: number;
		class?: ClassValue;
		itemClass?: (item: Item, isOn: boolean) => ClassValue;
		item: Snippet<[item: Item, isOn: boolean]>;
		/** What is said where there is nothing. */
		empty?: Snippet;
	}
	let {
		label,
		items,
		key,
		chosen,
		onchoose,
		onpoint,
		hint,
		columns = 1,
		class: outer,
		itemClass,
		item,
		empty
	}: Props = $props();
	const at = $derived(
		Math.max(
			0,
			items.findIndex((one) => key(one) === chosen)
		)
	);
</script>

<div
	class={outer}
	role="listbox"
	aria-label={label}
	tabindex="-1"
	onpointerleave={() => onpoint?.(undefined)}
	{@attach roving('option', { columns, isChosen: false })}
>
	{#each items as one, index (key(one))}
		{@const isOn = key(one) === chosen}
		<button
			type="button"
			role="option"
			aria-selected={isOn}
			title={hint?.(one)}
			tabindex={index === at ? 0 : -1}
			class={itemClass?.(one, isOn)}
			onpointerenter={() => onpoint?.(one)}
			onfocus={(event) => event.currentTarget.matches(':focus-visible') && onpoint?.(one)}
			onblur={() => onpoint?.(undefined)}
			onclick={() => onchoose(one)}>{@render item(one, isOn)}</button
		>
	{/each}
	{#if !items.length}{@render empty?.()}{/if}
</div>
