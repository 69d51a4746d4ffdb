<script lang="ts">
	import { colourAt, mainColours, type Pixels } from '$lib/core/picture.ts';
	import { notify } from '../notices.svelte.ts';
	import { keysOf } from '../controls/shortcuts.ts';
	import Button from '../controls/Button.svelte';

	/** Inks from a picture: its main colours, or the colour at a point of it. The picture stays in the browser. */
	let { onink }: { onink: (hex: string) => void } = $props();
	const WIDEST = 360;
	const TALLEST = 220;
	const COLOURS = 8;
	let canvas = $state<HTMLCanvasElement>();
	let chooser: HTMLInputElement;
	let pixels: Pixels | undefined;
	let name = $state<string>();
	let main = $state.raw<readonly string[]>([]);
	let pointed = $state<string>();
	let keyAt = $state({ x: 0, y: 0 });

	async function take(file: File | undefined) {
		if (!file) return;
		try {
			const picture = await createImageBitmap(file);
			const scale = Math.min(1, WIDEST / picture.width, TALLEST / picture.height);
			canvas!.width = Math.max(1, Math.round(picture.width * scale));
			canvas!.height = Math.max(1, Math.round(picture.height * scale));
			const context = canvas!.getContext('2d', { willReadFrequently: true })!;
			context.drawImage(picture, 0, 0, canvas!.width, canvas!.height);
			pixels = context.getImageData(0, 0, canvas!.width, canvas!.height);
			main = mainColours(pixels, COLOURS);
			name = file.name;
			keyAt = { x: Math.round(canvas!.width / 2), y: Math.round(canvas!.height / 2) };
		} catch {
			notify(`“${file.name}” cannot be read as a picture. PNG, JPEG, WebP and GIF can.`, 'error');
		}
	}
	function at(event: PointerEvent | MouseEvent): string | undefined {
		const box = canvas!.getBoundingClientRect();
		return (
			pixels &&
			colourAt(
				pixels,
				Math.floor(((event.clientX - box.left) / box.width) * pixels.width),
				Math.floor(((event.clientY - box.top) / box.height) * pixels.height)
			)
		);
	}
	/** The picture's point of the keyboard goes so many pixels across and down. */
	function move(across: number, down: number) {
		const { width, height } = pixels!;
		const clamp = (value: number, size: number) => Math.min(size - 1, Math.max(0, value));
		keyAt = { x: clamp(keyAt.x + across, width), y: clamp(keyAt.y + down, height) };
		pointed = colourAt(pixels!, keyAt.x, keyAt.y);
	}
	const when = () => !!pixels;
	const keys = keysOf([
		{ keys: ['ArrowLeft'], when, run: () => move(-4, 0) },
		{ keys: ['ArrowRight'], when, run: () => move(4, 0) },
		{ keys: ['ArrowUp'], when, run: () => move(0, -4) },
		{ keys: ['ArrowDown'], when, run: () => move(0, 4) },
		{ keys: ['Enter'], when: () => !!pixels && !!pointed, run: () => onink(pointed!) }
	]);
</script>

<section class="card px-4 py-3" aria-label="Inks from a picture">
	<div class="flex items-center gap-3">
		<h2 class="font-semibold">From a picture</h2>
		<span class="truncate text-[12px] text-quiet">{name ?? 'its main colours, or the colour of a point'}</span>
		<Button small class="ms-auto" onclick={() => chooser.click()}>Choose a picture…</Button>
		<input
			bind:this={chooser}
			type="file"
			accept="image/*"
			class="hidden"
			aria-label="Picture to take inks from"
			onchange={(event) => {
				void take(event.currentTarget.files?.[0]);
				event.currentTarget.value = '';
			}}
		/>
	</div>
	<div class={['mt-2 flex gap-4', !name && 'hidden']}>
		<canvas
			bind:this={canvas}
			class="cursor-crosshair rounded border border-hairline"
			tabindex="0"
			aria-label="The picture: click a point, or move with the arrows and press Enter"
			onpointermove={(event) => (pointed = at(event))}
			onclick={(event) => {
				const hex = at(event);
				if (hex) onink(hex);
			}}
			onkeydown={keys}
		></canvas>
		<div>
			<p class="mb-1.5 text-[12px] text-quiet">Main colours</p>
			<div class="flex w-40 flex-wrap gap-1.5" data-main-colours>
				{#each main as hex (hex)}<button
						type="button"
						class="h-8 w-8 rounded border border-hairline"
						style="background:{hex}"
						aria-label="Make {hex} an ink"
						title={hex}
						onclick={() => onink(hex)}
					></button>{/each}
			</div>
			<p class="mt-3 flex items-center gap-2 text-[12px] text-quiet">
				<span class="h-5 w-5 rounded border border-hairline" style="background:{pointed ?? 'transparent'}"
				></span>{pointed ?? 'point at the picture'}
			</p>
		</div>
	</div>
</section>
