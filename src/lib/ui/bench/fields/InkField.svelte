<script lang="ts">
	import type { LeafValue } from '$lib/core/style/types.ts';
	import ColourField from './ColourField.svelte';

	/** An ink by name, any colour, or none on purpose. */
	let {
		value,
		inks,
		label,
		onset,
		isNoneOffered = true
	}: {
		value: LeafValue | undefined;
		inks: Readonly<Record<string, string>>;
		label: string;
		onset: (value: string) => void;
		isNoneOffered?: boolean;
	} = $props();
	let open = $state(false);
	let box: HTMLElement;
	const shown = $derived(value === undefined ? undefined : String(value));
	const colour = (name: string | undefined) =>
		name === undefined || name === 'none' ? undefined : (inks[name] ?? (name.startsWith('#') ? name : undefined));

	function choose(name: string) {
		onset(name);
		open = false;
		box.querySelector('button')?.focus();
	}
</script>

<svelte:window onpointerdown={(event) => open && !box.contains(event.target as Node) && (open = false)} />
<div
	bind:this={box}
	class="relative"
	onkeydown={(event) => {
		if (event.key === 'Escape' && open) {
			event.stopPropagation();
			open = false;
		}
	}}
	role="presentation"
>
	<button
		type="button"
		class="field flex w-full items-center gap-2 text-start"
		aria-label="{label}: {shown ?? 'not set'}"
		aria-expanded={open}
		onclick={() => (open = !open)}
	>
		<span
			class={['h-4 w-4 shrink-0 rounded border border-hairline', !colour(shown) && 'none']}
			style={colour(shown) ? `background:${colour(shown)}` : ''}
		></span>
		<span class="truncate">{shown ?? '–'}</span>
	</button>
	{#if open}
		<div
			{@attach (list) => list.scrollIntoView({ block: 'nearest' })}
			class="absolute end-0 z-30 mt-1 w-52 rounded-lg border border-hairline bg-sheet p-2 shadow-lg"
		>
			<div class="grid grid-cols-2 gap-0.5" role="group" aria-label="Inks">
				{#each Object.entries(inks) as [name, hex] (name)}
					<button
						type="button"
						class={[
							'flex min-h-7 items-center gap-2 rounded px-1.5 text-start hover:bg-desk',
							shown === name && 'bg-picked-wash font-semibold'
						]}
						aria-pressed={shown === name}
						onclick={() => choose(name)}
					>
						<span class="h-4 w-4 shrink-0 rounded border border-hairline" style="background:{hex}"></span><span
							class="truncate">{name}</span
						>
					</button>
				{/each}
				{#if isNoneOffered}<button
						type="button"
						class={[
							'flex min-h-7 items-center gap-2 rounded px-1.5 text-start hover:bg-desk',
							shown === 'none' && 'bg-picked-wash font-semibold'
						]}
						aria-pressed={shown === 'none'}
						onclick={() => choose('none')}
					>
						<span class="none h-4 w-4 shrink-0 rounded border border-hairline"></span>none
					</button>{/if}
			</div>
			<div class="mt-1.5 border-t border-hairline pt-2">
				<p class="mb-1 text-[12px] text-quiet">Another colour</p>
				<ColourField value={colour(shown)} label="{label}, another colour" onset={choose} />
			</div>
		</div>
	{/if}
</div>

<style>
	.none {
		background: linear-gradient(to top right, transparent 46%, var(--color-error) 46% 54%, transparent 54%);
	}
</style>
