<script lang="ts">
	import { partWords } from '$lib/core/style/parts.ts';
	import { leafWords } from '$lib/core/style/words.ts';
	import type { Bench } from './bench.svelte.ts';
	import Button from '../controls/Button.svelte';

	/** Says that the style is not saved, why, and what can be done about it. */
	let { bench }: { bench: Bench } = $props();

	/** A place in a style in words: of a part, what is set there. */
	const clashPlace = ([group, part, ...leaf]: readonly string[]) =>
		group === 'parts' && part !== undefined
			? `${partWords(part)}${leaf.length ? `, ${leafWords(leaf.join('.'))}` : ''}`
			: [group, part, ...leaf].filter(Boolean).join(', ');
	const clashValue = (value: unknown) =>
		value === undefined || value === null ? 'nothing' : `“${typeof value === 'object' ? 'a list' : String(value)}”`;
</script>

{#if bench.draft.state === 'conflict'}
	<div class="flex items-center gap-3 border-b border-error bg-error-wash px-5 py-2 text-error" role="alert">
		<div class="flex-1">
			<p>{bench.draft.fault} All that goes together will stand; say which of these is to:</p>
			<ul class="max-h-24 overflow-y-auto">
				{#each bench.draft.clashes as { path, mine, theirs } (path.join(' '))}
					<li>{clashPlace(path)}: theirs {clashValue(theirs)}, yours {clashValue(mine)}</li>
				{/each}
			</ul>
		</div>
		<Button
			small
			aria-pressed={bench.isLookingAtTheirs}
			onclick={() => (bench.isLookingAtTheirs = !bench.isLookingAtTheirs)}
			>{bench.isLookingAtTheirs ? 'Look at mine' : 'Look at the other'}</Button
		>
		<Button
			small
			onclick={() => {
				bench.isLookingAtTheirs = false;
				bench.draft.takeTheirs();
			}}>Take the other</Button
		>
		<Button
			small
			onclick={() => {
				bench.isLookingAtTheirs = false;
				void bench.draft.keepMine();
			}}>Save mine over it</Button
		>
	</div>
{:else if bench.draft.offline !== undefined}
	<p class="border-b border-hairline bg-warning-wash px-5 py-1.5 text-warning-text" role="status">
		{bench.draft.offline} What you did waits in this browser and will be sent.
	</p>
{:else if bench.draft.state === 'failed'}
	<div class="flex items-center gap-3 border-b border-error bg-error-wash px-5 py-2 text-error" role="alert">
		<p class="flex-1">{bench.draft.fault}</p>
		<Button small onclick={() => bench.draft.retry()}>Try again</Button>
	</div>
{/if}
