<script lang="ts">
	import { lineStrokes, strokePath } from '$lib/core/layout/patterns.ts';
	import { aroundPath, shadowBoxes } from '$lib/core/layout/shadows.ts';
	import type { Shadow } from '$lib/core/properties/shadow.ts';
	import { OTHER_SCRIPTS } from '../table/paint.ts';
	import type { DrawnPage } from '$lib/core/layout/drawn.ts';

	/** A page as the PDF has it, drawn from the same marks. Its units are points. */
	let { page, label }: { page: DrawnPage; label: string } = $props();
	const id = $props.id();
	const dropShadow = ({ x, y, blur, ink }: Shadow) =>
		`filter:drop-shadow(${pt(x)}px ${pt(y)}px ${pt(blur) / 2}px ${ink})`;
	const pt = (length: number) => Number((length / 12_700).toFixed(3));
</script>

<svg
	viewBox="0 0 {pt(page.width)} {pt(page.height)}"
	class="on-paper block w-full bg-white shadow-sm ring-1 ring-hairline"
	role="img"
	aria-label={label}
>
	{#each page.shadows as { shadow, ...box }, i (i)}
		<clipPath id="{id}-{i}"><path d={aroundPath(box, shadow, 12_700)} clip-rule="evenodd" /></clipPath>
		<g clip-path="url(#{id}-{i})" fill={shadow.ink}>
			{#each shadowBoxes(box, shadow) as { x, y, width, height, opacity }, k (k)}
				<rect x={pt(x)} y={pt(y)} width={pt(width)} height={pt(height)} {opacity} />
			{/each}
		</g>
	{/each}
	{#each page.fills as { x, y, width, height, ink }, i (i)}
		<rect x={pt(x)} y={pt(y)} width={pt(width)} height={pt(height)} fill={ink} />
	{/each}
	{#each page.pictures as { x, y, width, height, source, alternative }, i (i)}
		<image
			href={source}
			x={pt(x)}
			y={pt(y)}
			width={pt(width)}
			height={pt(height)}
			preserveAspectRatio="none"
			aria-label={alternative}
		/>
	{/each}
	{#each page.texts as mark, i (i)}
		{@const { x, y, turn, text, size, width, underline, isTurned } = mark}
		<g transform={turn ? `rotate(${turn} ${pt(x)} ${pt(y)})` : undefined} fill={mark.ink}>
			<text
				x={pt(isTurned ? x + width : x)}
				y={pt(y)}
				direction={isTurned ? 'rtl' : undefined}
				font-family="'{mark.family}',{OTHER_SCRIPTS}"
				font-size={pt(size)}
				font-weight={mark.weight}
				font-style={mark.italic ? 'italic' : undefined}
				letter-spacing={mark.tracking ? pt(mark.tracking) : undefined}
				word-spacing={mark.spread ? pt(mark.spread) : undefined}
				style="white-space:pre{mark.shadow ? `;${dropShadow(mark.shadow)}` : ''}">{text}</text
			>
			{#each underline === 'none' ? [] : underline === 'single' ? [0] : [0, 2] as below (below)}
				{@const thick = Math.max(0.4, pt(size) / 18)}
				<rect x={pt(x)} y={pt(y) + pt(size) * 0.12 + (below - 0.5) * thick} width={pt(width)} height={thick} />
			{/each}
		</g>
	{/each}
	{#each page.lines as { x1, y1, x2, y2, line }, i (i)}
		{#each lineStrokes(line) as stroke, k (k)}
			<path
				d={strokePath([pt(x1), pt(y1)], [pt(x2), pt(y2)], stroke)}
				fill="none"
				stroke={line.ink}
				stroke-width={stroke.thick}
				stroke-dasharray={stroke.dashes?.join(' ')}
			/>
		{/each}
	{/each}
</svg>
