<script lang="ts">
	/** A ruler in millimetres of paper along one side of the sheet. */
	interface Props {
		along: 'x' | 'y';
		/** Where 0 is, in pixels, and how many pixels a millimetre is. */
		offset: number;
		scale: number;
		length: number;
		step: number;
		/** Where the pointer is, in millimetres. */
		mark: number | undefined;
	}
	let { along, offset, scale, length, step, mark }: Props = $props();
	const marks = $derived.by(() => {
		const from = Math.ceil(-offset / scale / step);
		const to = Math.floor((length - offset) / scale / step);
		return Array.from({ length: Math.max(0, Math.min(to - from + 1, 200)) }, (_, i) => (from + i) * step);
	});
	const words = (value: number) => String(Number(value.toFixed(3)));
	const at = (value: number) => offset + value * scale;
</script>

<svg
	class={[
		'absolute bg-paper text-[9px] text-quiet',
		along === 'x'
			? 'top-0 right-0 left-5 h-5 border-b border-hairline'
			: 'top-5 bottom-0 left-0 w-5 border-e border-hairline'
	]}
	width={along === 'x' ? length : 20}
	height={along === 'x' ? 20 : length}
	aria-hidden="true"
>
	{#each marks as value (value)}
		{#if along === 'x'}
			<path d="M{at(value)} 12V20" stroke="currentColor" />
			<text x={at(value) + 3} y="11" fill="currentColor">{words(value)}</text>
		{:else}
			<path d="M12 {at(value)}H20" stroke="currentColor" />
			<text transform="translate(11 {at(value) + 3}) rotate(-90)" text-anchor="end" fill="currentColor"
				>{words(value)}</text
			>
		{/if}
	{/each}
	{#if mark !== undefined}<path
			d={along === 'x' ? `M${at(mark)} 0V20` : `M0 ${at(mark)}H20`}
			class="stroke-accent"
		/>{/if}
</svg>
