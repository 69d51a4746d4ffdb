<script lang="ts" generics="Value extends string | number | boolean | undefined">
	import type { Snippet } from 'svelte';
	import type { ClassValue } from 'svelte/elements';
	import { roving } from './roving.ts';

	/** One of a few that all stand in sight. Arrow keys choose among them. */
	interface Props {
		/** What is chosen here, for those who do not see it; or the id of the heading that says it. */
		label?: string;
		labelledby?: string;
		/** Each choice with its words. */
		options: readonly (readonly [value: Value, words: string])[];
		/** What is chosen; where it is none of the options, nothing is. */
		value: Value;
		onchange: (value: Value) => void;
		/** Chips in a line, or segments of one bar. */
		look?: 'chips' | 'bar' | 'plain';
		class?: ClassValue;
		/** Classes of an option, besides those of the look. */
		optionClass?: (value: Value, isOn: boolean) => ClassValue;
		/** Says more of an option, shown while the pointer rests on it. */
		hint?: (value: Value) => string;
		/** What an option shows in the place of its words, which stay its name. */
		option?: Snippet<[value: Value, words: string, isOn: boolean]>;
		/** What stands at the end of the line without being a choice. */
		after?: Snippet;
	}
	let {
		label,
		labelledby,
		options,
		value,
		onchange,
		look = 'chips',
		class: outer,
		optionClass,
		hint,
		option,
		after
	}: Props = $props();
	const chosen = $derived(options.findIndex(([one]) => one === value));
	const SETS = {
		chips: 'flex flex-wrap gap-1.5',
		bar: 'grid auto-cols-fr grid-flow-col overflow-hidden rounded-lg border border-hairline bg-sheet text-center',
		plain: ''
	};
	const looks = (isOn: boolean): ClassValue =>
		look === 'chips'
			? ['chip', isOn && 'on']
			: look === 'bar'
				? [
						'min-h-8 border-e border-hairline px-1 text-[13px] last:border-0 focus-visible:-outline-offset-4 focus-visible:outline-current',
						isOn ? 'bg-picked font-semibold text-sheet' : 'hover:bg-paper'
					]
				: '';
</script>

<div
	class={[SETS[look], outer]}
	role="radiogroup"
	aria-label={label}
	aria-labelledby={labelledby}
	{@attach roving('radio')}
>
	{#each options as [one, words], index (index)}
		{@const isOn = index === chosen}
		<button
			type="button"
			role="radio"
			aria-checked={isOn}
			title={hint?.(one)}
			tabindex={index === Math.max(chosen, 0) ? 0 : -1}
			class={[looks(isOn), optionClass?.(one, isOn)]}
			onclick={() => onchange(one)}
			>{#if option}{@render option(one, words, isOn)}{:else}{words}{/if}</button
		>
	{/each}
	{@render after?.()}
</div>
