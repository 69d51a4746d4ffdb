<script lang="ts">
	import { flatten } from '$lib/core/style/inherit.ts';
	import { partWords } from '$lib/core/style/parts.ts';
	import { RECIPES, withRecipe, type Recipe } from '$lib/core/style/recipes.ts';
	import { LINE_PLACES } from '$lib/core/style/types.ts';
	import { linePlaceWords } from '$lib/core/style/words.ts';
	import type { Bench } from './bench.svelte.ts';

	/** Beside the specimens in linework mode: what is drawn on, whole recipes, and what the edges show. */
	let { bench }: { bench: Bench } = $props();
	const pen = $derived(bench.pen);
	const ink = $derived(pen.draws === 'line' ? pen.ink : (Object.keys(bench.inks)[0] ?? 'loam'));
	const below = $derived(bench.chain[0] ? flatten(bench.chain[0], bench.find) : undefined);
	const made = (recipe: Recipe) => withRecipe(bench.draft.definition, below, recipe, ink);
	/** Lines that belong together, drawn at once; the last two are those of other parts. */
	const families: { words: string; draw: () => void }[] = [
		{ words: 'rim', draw: () => bench.draw(['top', 'bottom', 'start', 'end']) },
		{ words: 'between rows', draw: () => bench.draw(['betweenRows']) },
		{ words: 'between columns', draw: () => bench.draw(['betweenColumns']) },
		{ words: 'diagonals', draw: () => bench.draw(['diagonalDown', 'diagonalUp']) },
		{ words: 'under the header', draw: () => bench.draw(['bottom'], 'header') },
		{ words: 'over the totals', draw: () => bench.draw(['top'], 'total', 'subtotal') }
	];
	const states = { set: 'drawn here', none: 'none, said on purpose', untouched: 'untouched' } as const;
</script>

<div class="min-h-0 flex-1 overflow-y-auto px-4 py-3">
	<section class="mb-4" aria-label="Drawing on">
		<h3 class="mb-1 font-semibold">Drawing on {partWords(bench.place)}</h3>
		<p class="mb-2 text-[12px] text-quiet">
			An edge that you pick is a line of this part, on every table that wears the style.
		</p>
		<div class="mb-2 flex flex-wrap gap-1.5" role="group" aria-label="Whole families">
			{#each families as { words, draw } (words)}<button type="button" class="chip hover:text-accent!" onclick={draw}
					>{words}</button
				>{/each}
		</div>
		<ul class="flex flex-col">
			{#each LINE_PLACES as place (place)}
				{@const state = bench.lineStates[place]}
				<li class="flex items-center gap-2 border-b border-hairline last:border-0">
					<button
						type="button"
						class="flex min-h-7 flex-1 items-center gap-2 text-start hover:text-accent"
						aria-label="Draw {linePlaceWords(place)}"
						onclick={() => bench.draw([place])}
					>
						<i class={['edge', state]}></i>{linePlaceWords(place)}
					</button>
					<span class={['text-[12px]', state === 'set' ? 'font-semibold text-accent' : 'text-quiet']}
						>{states[state]}</span
					>
				</li>
			{/each}
		</ul>
	</section>
	{#if bench.foreignEdge.length}
		<section class="mb-4 rounded-lg border border-mark bg-accent-wash px-3 py-2" aria-label="That edge">
			<h3 class="font-semibold">That edge is not one of {partWords(bench.place)}</h3>
			<p class="mb-1.5 text-[12px] text-quiet">Whose line is it to be?</p>
			<div class="flex flex-wrap gap-1.5">
				{#each bench.foreignEdge as { part, place } (`${part} ${place}`)}
					<button
						type="button"
						class="chip"
						onclick={() => {
							bench.choose(part);
							bench.draw([place]);
						}}>{partWords(part)}, {linePlaceWords(place)}</button
					>
				{/each}
			</div>
		</section>
	{/if}
	<section class="mb-4" aria-label="Recipes">
		<h3 class="mb-1 font-semibold">Whole linework</h3>
		<p class="mb-2 text-[12px] text-quiet">
			Takes the place of all lines of the style; every one can be changed after.
		</p>
		<ul class="grid grid-cols-2 gap-2">
			{#each RECIPES as recipe (recipe.name)}
				<li>
					<button
						type="button"
						class="card w-full px-2.5 py-2 text-start hover:border-quiet"
						title={recipe.words}
						onpointerenter={() => (bench.tried = made(recipe))}
						onpointerleave={() => (bench.tried = undefined)}
						onfocus={() => (bench.tried = made(recipe))}
						onblur={() => (bench.tried = undefined)}
						onclick={() => {
							bench.tried = undefined;
							bench.change(made(recipe), `linework: ${recipe.name}`);
						}}
					>
						<strong class="block">{recipe.name}</strong><span class="block text-[12px] leading-tight text-quiet"
							>{recipe.words}</span
						>
					</button>
				</li>
			{/each}
		</ul>
	</section>
	<section aria-label="Edges show">
		<h3 class="mb-1 font-semibold">Edges show</h3>
		<p class="flex items-center gap-2"><i class="edge set"></i>drawn by {partWords(bench.place)}</p>
		<p class="flex items-center gap-2"><i class="edge none"></i>none, said on purpose</p>
		<p class="flex items-center gap-2"><i class="edge untouched"></i>its own, untouched</p>
	</section>
</div>

<style>
	.edge {
		display: inline-block;
		width: 22px;
		flex-shrink: 0;
		border-top: 2px dotted var(--color-picked);
	}
	.edge.set {
		border-top: 3px solid var(--color-accent);
	}
	.edge.none {
		border-top: 2px dashed var(--color-error);
	}
</style>
