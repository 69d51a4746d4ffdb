<script lang="ts">
	import { parseColour } from '../../controls/fields.ts';
	import TypedField from '../../controls/TypedField.svelte';

	/** A colour, picked or typed as hex, rgb(), hsl(), oklch() or any other way of CSS. */
	let { value, label, onset }: { value: string | undefined; label: string; onset: (hex: string) => void } = $props();
</script>

<div class="flex items-start gap-2">
	<input
		type="color"
		class="h-7 w-9 shrink-0"
		aria-label="{label}, picked"
		value={(value ?? '#2b2233').toLowerCase()}
		onchange={(event) => onset(event.currentTarget.value.toUpperCase())}
	/>
	<div class="min-w-0 flex-1">
		<TypedField {label} text={value ?? ''} placeholder="hex, rgb, hsl or oklch" parse={parseColour} {onset} />
	</div>
</div>
