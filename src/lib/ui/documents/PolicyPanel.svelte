<script lang="ts">
	import { placedWords } from '$lib/core/findings/index.ts';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import type { JudgedDocument, JudgedRule } from '$lib/server/census/judged.ts';
	import Button from '../controls/Button.svelte';

	/** What the house's policy has against a document: rule by rule, with the way to each table and what puts it right. */
	interface Props {
		judged: JudgedDocument | undefined;
		picked: number;
		busy: boolean;
		onjump: (table: number, r: number, c: number) => void;
		onpick: (table: number) => void;
		onmend: (rule: JudgedRule, tables: readonly number[]) => void;
	}
	let { judged, picked, busy, onjump, onpick, onmend }: Props = $props();
	const FEW = 12;
	const tablesOf = (rule: string) => judged!.tables.filter(({ faults }) => faults.some((fault) => fault.rule === rule));
</script>

{#if !judged}
	<p class="text-quiet">Looking at the tables…</p>
{:else if !judged.isHeld}
	<p class="mb-3 text-quiet">
		The house has not said yet what it wants of its tables: a least contrast, a caption, one of its styles.
	</p>
	<Button href="/house/policy">Say what is wanted…</Button>
{:else if judged.rules.length === 0}
	<p>Every table is as the house wants it.</p>
{:else}
	{#each judged.rules as rule (rule.rule)}
		{@const tables = tablesOf(rule.rule)}
		<section class="mb-4" aria-label={rule.wanted} data-held={rule.rule}>
			<h3 class="font-semibold">
				<span
					class={rule.level === 'must' ? 'text-error' : rule.level === 'warning' ? 'text-warning-text' : 'text-quiet'}
					>{rule.level}</span
				>
				· {rule.wanted}
			</h3>
			<ul class="mt-1">
				{#each tables.slice(0, FEW) as { index, faults } (index)}
					{@const own = faults.filter((fault) => fault.rule === rule.rule)}
					{@const [first] = own}
					<li class="flex items-start gap-2 border-b border-hairline py-1 last:border-0">
						<button
							type="button"
							class={['min-h-6 flex-1 text-start hover:underline', index === picked && 'font-medium']}
							onclick={() => (first?.r === undefined ? onpick(index) : onjump(index, first.r, first.c ?? 0))}
							>table {index + 1}: {placedWords(first!)}{own.length > 1 ? `, and ${own.length - 1} more` : ''}</button
						>
						{#if rule.mend}<Button
								small
								disabled={busy}
								aria-label="Fix: {rule.mend}, in table {index + 1}"
								onclick={() => onmend(rule, [index])}>Fix</Button
							>{/if}
					</li>
				{/each}
			</ul>
			{#if tables.length > FEW}<p class="text-[12px] text-quiet">
					and {plural(tables.length - FEW, 'more table')}
				</p>{/if}
			{#if rule.mend && tables.length > 1}
				<Button
					small
					class="mt-1"
					disabled={busy}
					onclick={() =>
						onmend(
							rule,
							tables.map(({ index }) => index)
						)}>{rule.mend}: {pluralWord(tables.length, 'it', `all ${tables.length}`)}</Button
				>
			{:else if !rule.mend}<p class="text-[12px] text-quiet">Only a person can put that right.</p>{/if}
		</section>
	{/each}
	<p class="text-[12px] text-quiet">
		A fix is one step; Ctrl+Z takes it back. <a class="underline" href="/house/policy">The house’s policy</a>
	</p>
{/if}
