<script lang="ts">
	import { ASPECTS, type Aspect } from '$lib/core/style/types.ts';

	/** Which parts of a style tables use, and what of it they take over. */
	interface Props {
		/** The parts that can be switched, with what to call them. */
		parts: readonly { name: string; words: string }[];
		partsOff: readonly string[];
		carry: readonly Aspect[];
		onparts: (off: string[]) => void;
		oncarry: (carry: Aspect[]) => void;
	}
	let { parts, partsOff, carry, onparts, oncarry }: Props = $props();
	const id = $props.id();
	const aspectWords: Record<Aspect, string> = {
		text: 'text',
		fill: 'fill',
		linework: 'linework',
		alignment: 'alignment',
		margins: 'margins',
		formats: 'number formats'
	};
	const toggled = <T,>(list: readonly T[], item: T) =>
		list.includes(item) ? list.filter((other) => other !== item) : [...list, item];
</script>

<h3 class="mt-4 mb-1.5 font-semibold" id="{id}-parts">Parts in use</h3>
<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="{id}-parts">
	{#each parts as { name, words } (name)}
		{@const on = !partsOff.includes(name)}
		<button
			type="button"
			aria-pressed={on}
			class={['chip', on ? 'on' : 'off']}
			onclick={() => onparts(toggled(partsOff, name))}>{words}</button
		>
	{/each}
</div>
<h3 class="mt-4 mb-1.5 font-semibold" id="{id}-carry">Carry</h3>
<div class="flex flex-wrap gap-1.5" role="group" aria-labelledby="{id}-carry">
	{#each ASPECTS as aspect (aspect)}
		{@const on = carry.includes(aspect)}
		<button
			type="button"
			aria-pressed={on}
			class={['chip', on ? 'on' : 'off']}
			onclick={() => oncarry(ASPECTS.filter((other) => toggled(carry, aspect).includes(other)))}
			>{aspectWords[aspect]}</button
		>
	{/each}
</div>
