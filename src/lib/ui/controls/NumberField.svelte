<script lang="ts">
	import type { ClassValue } from 'svelte/elements';
	import { parseNumber } from './fields.ts';
	import { keysOf } from './shortcuts.ts';
	import TypedField from './TypedField.svelte';

	/** A number between two bounds; the up and down keys change it by one. */
	interface Props {
		label: string;
		/** What holds; undefined where nothing does, which an empty field says, too, if there is `onclear`. */
		value: number | undefined;
		least?: number;
		most?: number;
		/** Whether it is a count. */
		isWhole?: boolean;
		unit?: string;
		placeholder?: string;
		title?: string;
		class?: ClassValue;
		onset: (value: number) => void;
		onclear?: () => void;
	}
	let { label, value, least = -Infinity, most = Infinity, isWhole = false, unit, onset, ...rest }: Props = $props();
	const move = (by: number) => {
		const next = (value ?? 0) + by;
		if (next >= least && next <= most) onset(next);
	};
	const keys = keysOf([
		{ keys: ['ArrowUp'], run: () => move(1) },
		{ keys: ['ArrowDown'], run: () => move(-1) }
	]);
</script>

<span class="contents" onkeydown={keys} role="presentation">
	<TypedField
		{label}
		text={value === undefined ? '' : String(value)}
		inputmode={isWhole ? 'numeric' : 'decimal'}
		parse={(text) => parseNumber(text, { least, most, isWhole, unit })}
		{onset}
		{...rest}
	/>
</span>
