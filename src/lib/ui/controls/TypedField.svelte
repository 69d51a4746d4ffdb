<script lang="ts" generics="Value">
	import type { ClassValue, HTMLInputAttributes } from 'svelte/elements';
	import type { Parsed } from './fields.ts';
	import { keysOf } from './shortcuts.ts';

	/**
	 * A field whose text stands for something: it is parsed when it is left or Enter is pressed, a fault is said beneath
	 * it with the text kept, and Escape puts back what holds.
	 */
	interface Props extends Pick<HTMLInputAttributes, 'placeholder' | 'list' | 'disabled' | 'inputmode' | 'title'> {
		label: string;
		/** What holds, as text. */
		text: string;
		parse: (text: string) => Parsed<Value>;
		onset: (value: Value) => void;
		/** What emptying the field does; without it an empty field goes back to what holds. */
		onclear?: () => void;
		class?: ClassValue;
	}
	let { label, text, parse, onset, onclear, class: outer = 'w-full', ...rest }: Props = $props();
	/** Goes with the text it is about. */
	let fault: string | undefined = $derived.by(() => void text);
	const id = $props.id();
	let input: HTMLInputElement;

	function revert() {
		fault = undefined;
		input.value = text;
	}
	function take() {
		fault = undefined;
		const typed = input.value.trim();
		if (typed === text) return;
		if (typed === '') return onclear ? onclear() : revert();
		const parsed = parse(typed);
		if ('fault' in parsed) fault = parsed.fault;
		else onset(parsed.value);
	}
	const keys = keysOf([{ keys: ['Escape'], when: () => !!fault || input.value !== text, run: revert }]);
</script>

<input
	bind:this={input}
	{...rest}
	class={['field', outer, fault && 'border-error!']}
	aria-label={label}
	aria-invalid={!!fault}
	aria-describedby={fault ? id : undefined}
	value={text}
	onchange={take}
	onkeydown={keys}
/>
{#if fault}<p {id} class="mt-0.5 text-[12px] text-error" role="alert">{fault}</p>{/if}
