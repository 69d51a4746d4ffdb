<script lang="ts">
	import type { ChangeAnswer, RowChange } from '$lib/core/schedule/difference.ts';
	import Button from '../controls/Button.svelte';

	/** What a schedule is behind its drawing, cell by cell; some or all of it can be accepted. */
	let {
		changes,
		onaccept
	}: { changes: readonly RowChange[]; onaccept: (answers: ReadonlyMap<string, ChangeAnswer> | 'all') => void } =
		$props();
	let left = $state.raw<ReadonlySet<string>>(new Set());
	const toggle = (id: string) => {
		const next = new Set(left);
		if (!next.delete(id)) next.add(id);
		left = next;
	};
	const taken = $derived(changes.filter(({ id }) => !left.has(id)));
	const answers = () => new Map(taken.map(({ id }): [string, ChangeAnswer] => [id, 'take']));
</script>

{#if changes.length === 0}
	<p class="text-quiet">The table says what the drawing says.</p>
{:else}
	<ul class="space-y-1.5" aria-label="Changes">
		{#each changes as change (change.id)}
			<li>
				<label class="flex items-start gap-2"
					><input
						type="checkbox"
						class="mt-0.5 rounded-sm text-picked"
						checked={!left.has(change.id)}
						onchange={() => toggle(change.id)}
					/><span class="min-w-0 flex-1"
						>{#if change.kind === 'added'}<span class="text-picked">{change.words}</span> is new{:else if change.kind === 'gone'}<span
								class="text-error">{change.words}</span
							>
							is gone{#if change.typed.length}<span class="block text-warning-text"
									>typed by hand in it: {change.typed.join(', ')}</span
								>{/if}{:else}<span class="text-warning-text">{change.words} · {change.column}</span>
							<span class="block">{change.was || '–'} → {change.is || '–'}</span>{/if}</span
					></label
				>
				{#if change.kind === 'changed' && change.conflict}
					<p class="ps-6 text-warning-text">
						“{change.was}” was typed over the drawing.
						<button type="button" class="underline" onclick={() => onaccept(new Map([[change.id, 'keep']]))}
							>keep it</button
						>
					</p>
				{/if}
			</li>
		{/each}
	</ul>
	<Button class="mt-3" disabled={taken.length === 0} onclick={() => onaccept(left.size ? answers() : 'all')}
		>Accept {taken.length === changes.length
			? changes.length === 1
				? 'the change'
				: `all ${changes.length}`
			: `${taken.length} of ${changes.length}`}</Button
	>
{/if}
