<script lang="ts">
	import { keysOf } from '../controls/shortcuts.ts';

	/** The handle between before and after, over the table it stands in. */
	let { value = $bindable(), after }: { value: number; after: string } = $props();
	let track: HTMLElement;

	function drag(event: PointerEvent) {
		const { left, width } = track.getBoundingClientRect();
		value = Math.min(1, Math.max(0, (event.clientX - left) / width));
	}
	const set = (to: number) => (value = Math.min(1, Math.max(0, to)));
	const keys = keysOf([
		{ keys: ['ArrowLeft'], run: () => set(value - 0.02) },
		{ keys: ['ArrowRight'], run: () => set(value + 0.02) },
		{ keys: ['Shift+ArrowLeft'], run: () => set(value - 0.1) },
		{ keys: ['Shift+ArrowRight'], run: () => set(value + 0.1) },
		{ keys: ['Home'], run: () => set(0) },
		{ keys: ['End'], run: () => set(1) }
	]);
</script>

<div bind:this={track} class="pointer-events-none absolute inset-0">
	<span class="absolute -top-9 start-0 whitespace-nowrap font-sans text-[11px] text-quiet">before</span>
	<span class="absolute -top-9 end-0 whitespace-nowrap font-sans text-[11px] text-quiet">{after}</span>
	<div class="absolute inset-y-0 w-0.5 -translate-x-1/2 bg-accent" style="left:{value * 100}%">
		<button
			type="button"
			role="slider"
			aria-label="Before and after"
			aria-valuemin={0}
			aria-valuemax={100}
			aria-valuenow={Math.round(value * 100)}
			class="pointer-events-auto absolute top-1/2 left-1/2 flex h-8 w-8 -translate-1/2 touch-none items-center justify-center rounded-full bg-accent font-sans text-[13px] font-bold text-sheet"
			onpointerdown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
			onpointermove={(event) => event.buttons && drag(event)}
			onkeydown={keys}>‹ ›</button
		>
	</div>
</div>
