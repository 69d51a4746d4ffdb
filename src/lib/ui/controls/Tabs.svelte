<script lang="ts" generics="Key extends string | number">
	import type { Snippet } from 'svelte';
	import type { ClassValue } from 'svelte/elements';
	import { roving } from './roving.ts';

	/** What of several a panel shows. Arrow keys lead from tab to tab. */
	interface Props {
		label: string;
		tabs: readonly (readonly [key: Key, words: string])[];
		chosen: Key;
		onchoose: (key: Key) => void;
		/** Begins the ids of tabs and panel: `<id>-panel` is the panel's, `<id>-<key>` a tab's. */
		id: string;
		/** Chips, or words over a line. */
		look?: 'chips' | 'line' | 'plain';
		class?: ClassValue;
		tabClass?: (key: Key, isOn: boolean) => ClassValue;
		tab?: Snippet<[key: Key, words: string, isOn: boolean]>;
	}
	let { label, tabs, chosen, onchoose, id, look = 'chips', class: outer, tabClass, tab }: Props = $props();
	const SETS = { chips: 'flex flex-wrap gap-1.5', line: 'flex gap-4 border-b border-hairline', plain: '' };
	const looks = (isOn: boolean): ClassValue =>
		look === 'chips'
			? ['chip px-2!', isOn && 'on']
			: look === 'line'
				? [
						'border-b-2 pt-2.5 pb-2 font-medium',
						isOn ? 'border-picked text-picked' : 'border-transparent text-quiet hover:text-ink'
					]
				: '';
</script>

<div class={[SETS[look], outer]} role="tablist" aria-label={label} {@attach roving('tab')}>
	{#each tabs as [key, words] (key)}
		{@const isOn = key === chosen}
		<button
			type="button"
			role="tab"
			id="{id}-{key}"
			aria-selected={isOn}
			aria-controls="{id}-panel"
			tabindex={isOn ? 0 : -1}
			class={[looks(isOn), tabClass?.(key, isOn)]}
			onclick={() => onchoose(key)}
			>{#if tab}{@render tab(key, words, isOn)}{:else}{words}{/if}</button
		>
	{/each}
</div>
