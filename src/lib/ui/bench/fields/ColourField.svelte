<script lang="ts">
	import { toHex } from '$lib/core/colour.ts';

	/** A colour, picked or typed as hex, rgb(), hsl(), oklch() or any other way of CSS. */
	let { value, label, onset }: { value: string | undefined; label: string; onset: (hex: string) => void } = $props();
	let fault = $state<string>();
	const id = $props.id();
	function typed(text: string) {
		fault = undefined;
		if (!text.trim()) return;
		const hex = toHex(/^[0-9a-f]{6}$/i.test(text.trim()) ? `#${text.trim()}` : text.trim());
		if (hex) onset(hex);
		else fault = 'Write a colour as #2F5D50, rgb(47 93 80), hsl(163 33% 27%) or oklch(0.44 0.06 170).';
	}
</script>

<div class="flex items-center gap-2">
	<input
		type="color"
		class="h-7 w-9 shrink-0"
		aria-label="{label}, picked"
		value={(value ?? '#2b2233').toLowerCase()}
		onchange={(event) => onset(event.currentTarget.value.toUpperCase())}
	/>
	<input
		class={['field min-w-0 flex-1', fault && 'border-error!']}
		aria-label={label}
		aria-invalid={!!fault}
		aria-describedby={fault ? id : undefined}
		placeholder="hex, rgb, hsl or oklch"
		value={value ?? ''}
		onchange={(event) => typed(event.currentTarget.value)}
	/>
</div>
{#if fault}<p {id} class="mt-0.5 text-[12px] text-error" role="alert">{fault}</p>{/if}
