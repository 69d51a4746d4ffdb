<script lang="ts">
	import type { Line } from '$lib/core/cascade/look.ts';
	import type { DrawnPage } from '$lib/core/layout/drawn.ts';

	/** A page as the PDF has it, drawn from the same marks. Its units are points. */
	let { page, label }: { page: DrawnPage; label: string } = $props();
	const pt = (length: number) => Number((length / 12_700).toFixed(3));

	/** The strokes of a line: how far each is aside of it, how thick, and its dashes. */
	function strokes({ pattern, weight }: Line): { aside: number; thick: number; dashes?: string }[] {
		const whole = Math.max(0.1, pt(weight));
		const dashed = (...lengths: number[]) => [
			{ aside: 0, thick: whole, dashes: lengths.map((one) => one * whole).join(' ') }
		];
		switch (pattern) {
			case 'dashed':
				return dashed(3, 2);
			case 'dotted':
				return dashed(1, 1);
			case 'dash-dot':
				return dashed(3, 2, 1, 2);
			case 'double':
			case 'triple': {
				const parts = pattern === 'double' ? 3 : 5;
				const size = Math.max(whole, parts * 0.25);
				return Array.from({ length: (parts + 1) / 2 }, (_, i) => ({
					aside: (2 * i + 0.5) * (size / parts) - size / 2,
					thick: size / parts
				}));
			}
			default:
				return [{ aside: 0, thick: whole }];
		}
	}
</script>

<svg
	viewBox="0 0 {pt(page.width)} {pt(page.height)}"
	class="block w-full bg-white shadow-sm ring-1 ring-hairline"
	role="img"
	aria-label={label}
>
	{#each page.fills as { x, y, width, height, ink }, i (i)}
		<rect x={pt(x)} y={pt(y)} width={pt(width)} height={pt(height)} fill={ink} />
	{/each}
	{#each page.texts as mark, i (i)}
		{@const { x, y, turn, text, size, width, underline } = mark}
		<g transform={turn ? `rotate(${turn} ${pt(x)} ${pt(y)})` : undefined} fill={mark.ink}>
			<text
				x={pt(x)}
				y={pt(y)}
				font-family="'{mark.family}'"
				font-size={pt(size)}
				font-weight={mark.weight}
				font-style={mark.italic ? 'italic' : undefined}
				letter-spacing={mark.tracking ? pt(mark.tracking) : undefined}
				word-spacing={mark.spread ? pt(mark.spread) : undefined}
				style="white-space:pre">{text}</text
			>
			{#each underline === 'none' ? [] : underline === 'single' ? [0] : [0, 2] as below (below)}
				{@const thick = Math.max(0.4, pt(size) / 18)}
				<rect x={pt(x)} y={pt(y) + pt(size) * 0.12 + (below - 0.5) * thick} width={pt(width)} height={thick} />
			{/each}
		</g>
	{/each}
	{#each page.lines as { x1, y1, x2, y2, line }, i (i)}
		{@const length = Math.hypot(x2 - x1, y2 - y1) || 1}
		{@const [nx, ny] = [-(y2 - y1) / length, (x2 - x1) / length]}
		{#each strokes(line) as { aside, thick, dashes }, k (k)}
			<line
				x1={pt(x1) + nx * aside}
				y1={pt(y1) + ny * aside}
				x2={pt(x2) + nx * aside}
				y2={pt(y2) + ny * aside}
				stroke={line.ink}
				stroke-width={thick}
				stroke-dasharray={dashes}
			/>
		{/each}
	{/each}
</svg>
