<script lang="ts">
	import { placedWords } from '$lib/core/findings/index.ts';
	import { levelWords } from '$lib/core/policy/levels.ts';
	import { plural } from '$lib/core/words.ts';
	import type { JudgedDocument } from '$lib/server/census/judged.ts';
	import { Spinner } from 'flowbite-svelte';
	import type { Account } from '$lib/formats/tally.ts';
	import type { Travel } from '$lib/formats/job.ts';
	import { aboutKind, KINDS, type DocumentKind, type OutKind } from '$lib/formats/kinds.ts';
	import { call } from '../api.ts';
	import Dialog from '../shell/Dialog.svelte';
	import ReadBackSheet from './ReadBackSheet.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import Button from '../controls/Button.svelte';

	/** Before the file is taken: what changes, what travels how, and what reading it back has found. */
	let {
		open = $bindable(),
		id,
		name,
		kind,
		tables,
		picked,
		onjump
	}: {
		open: boolean;
		id: string;
		name: string;
		kind: DocumentKind;
		tables: number;
		/** Index of the table that can be taken alone. */
		picked: number;
		/** Shows a cell of a table, where that can be seen. */
		onjump?: (table: number, r: number, c: number) => void;
	} = $props();
	const TRAVEL_WORDS: readonly (readonly [travel: Travel, words: string])[] = [
		['living', 'as living styles where possible'],
		['living-only', 'as living styles only'],
		['direct', 'as direct formatting only']
	];
	const isDrawing = $derived(aboutKind(kind).isDrawing === true);
	/** Drawings alone go out as drawings. */
	const formats = $derived(KINDS.filter((one) => isDrawing || !one.isDrawing));
	const wordsOf = (value: OutKind, words: string) =>
		value === 'pdf' && isDrawing && !isAlone ? 'PDF, the sheet at true size' : words;
	let format = $state<OutKind>();
	let travel = $state<Travel>('living');
	let isAlone = $state(false);
	let isByLeaf = $state(false);
	const chosen = $derived(isAlone && aboutKind(format ?? kind).isDrawing ? 'docx' : (format ?? kind));
	const isOwn = $derived(chosen === kind && !isAlone);
	const address = $derived(
		new URLSearchParams({ as: chosen, travel, ...(isAlone ? { tables: String(picked) } : {}) }).toString()
	);
	const travels = $derived(aboutKind(chosen).travels === true);
	let account = $state<Account>();
	let failed = $state<string>();

	$effect(() => {
		if (!open) return;
		account = undefined;
		failed = undefined;
		const asked = address;
		call('GET', `/api/documents/${id}/account?${asked}`).then(
			(result) => asked === address && (account = result),
			(error: Error) => asked === address && (failed = error.message)
		);
	});
	/** What the house's policy has against the document, before its file goes out. */
	let judged = $state.raw<JudgedDocument>();
	$effect(() => {
		if (!open) return;
		judged = undefined;
		call('GET', `/api/documents/${id}/policy`).then(
			(found) => (judged = found),
			// The file can be taken all the same.
			() => undefined
		);
	});
	const faults = $derived.by(() => {
		const levels = new Map(judged?.rules.map(({ rule, level }) => [rule, level]));
		const found = (judged?.tables ?? []).filter(({ index }) => !isAlone || index === picked);
		return found.flatMap(({ index, faults }) =>
			faults.map((fault) => ({ ...fault, index, level: levels.get(fault.rule)! }))
		);
	});
	const mustFails = $derived(faults.some(({ level }) => level === 'must'));
	const sum = (pick: (table: Account['tables'][number]) => number) =>
		account!.tables.reduce((total, table) => total + pick(table), 0);
	const number = new Intl.NumberFormat('en-GB');
</script>

{#snippet remarks({ remarks: all }: Account)}
	{#each all as remark (remark)}<p class="text-warning-text">{remark}</p>{/each}
{/snippet}

<Dialog bind:open title="Take “{name}”" wide>
	<label class="flex items-center gap-3"
		>as
		<select
			class="field w-72"
			aria-label="Format to take it in"
			value={chosen}
			onchange={(event) => (format = event.currentTarget.value as OutKind)}
		>
			{#each formats as { kind: value, out, isDrawing: isSheet } (value)}<option {value} disabled={isSheet && isAlone}
					>{wordsOf(value, out)}{value === kind ? ', as it came' : ''}</option
				>{/each}
		</select>
	</label>
	<div class="flex flex-wrap items-center gap-x-6 gap-y-2">
		{#if tables > 1}<label class="flex items-center gap-2"
				><input type="checkbox" class="rounded-sm text-picked" bind:checked={isAlone} />only table {picked + 1}, in a
				new file</label
			>{/if}
		{#if travels}<label class="flex items-center gap-2"
				>looks travel
				<select class="field w-64" aria-label="How looks travel" bind:value={travel}>
					{#each TRAVEL_WORDS as [value, words] (value)}<option {value}>{words}</option>{/each}
				</select></label
			>{/if}
	</div>
	{#if faults.length}
		<details
			class={['rounded-lg px-4 py-2.5', mustFails ? 'bg-error-wash text-error' : 'bg-warning-wash text-warning-text']}
			data-policy
		>
			<summary
				>The house’s policy has {levelWords(faults.map(({ level }) => level))} against it{mustFails
					? ': it says that this must not be so'
					: ''}</summary
			>
			<ul class="mt-1.5 max-h-40 overflow-y-auto">
				{#each faults.slice(0, 60) as { index, level, words, r, c }, i (i)}<li>
						{level} · table {index + 1}: {placedWords({
							words,
							...(r !== undefined && { r }),
							...(c !== undefined && { c })
						})}
					</li>{/each}
				{#if faults.length > 60}<li>and {plural(faults.length - 60, 'more')}</li>{/if}
			</ul>
		</details>
	{/if}
	{#if failed}
		<p class="rounded-lg bg-error-wash px-4 py-3 text-error" role="alert">{failed}</p>
	{:else if !account}
		<p class="flex items-center gap-3 text-quiet"><Spinner size="5" /> Writing the file and reading it back…</p>
	{:else if account.tables.length === 0}
		<p>
			No table of this document wears a house style yet{isOwn
				? ', so the file comes back exactly as it came.'
				: ': the new file has its headings, text and tables as they look now.'}
		</p>
		{@render remarks(account)}
	{:else}
		{@const differences = sum((table) => table.differences.length)}
		{@const unsaid = sum((table) => table.lost)}
		<p>
			{#if isOwn && kind !== 'csv'}<strong>{account.tables.length} of {tables} tables</strong> change; everything else in
				the file stays byte for byte as it came.{:else if isOwn}Rows have no looks: the file comes back exactly as it
				came.{:else}A new file of the document’s headings, text and tables; <strong
					>{account.tables.length} of {tables} tables</strong
				> are in a house style.{/if}
			{#if chosen === 'pdf' || chosen === 'css' || chosen === 'json' || chosen === 'csv'}{:else if differences === 0 && unsaid}Read
				back, the file shows <strong class="text-picked">what was intended</strong>, but for {plural(unsaid, 'setting')} that
				this format cannot say.{:else if differences === 0}Read back, the file shows
				<strong class="text-picked">exactly what was intended</strong>.{:else}Read back, the file shows <strong
					class="text-error">{plural(differences, 'difference')}</strong
				>.{/if}
		</p>
		{@render remarks(account)}
		<Segmented
			label="Account"
			options={[
				[false, 'By table'],
				[true, 'By leaf']
			]}
			value={isByLeaf}
			onchange={(is) => (isByLeaf = is)}
		/>
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div
			class="max-h-72 overflow-y-auto"
			role="region"
			aria-label={isByLeaf ? 'Account by leaf' : 'Account by table'}
			tabindex="0"
		>
			{#if isByLeaf}<ReadBackSheet accounts={account.tables.map(({ leaves }) => leaves)} />{:else}
				<table class="w-full">
					<thead class="sticky top-0 bg-sheet text-quiet">
						<tr class="border-b border-hairline">
							<th class="py-1.5 text-start font-medium">Table</th>
							<th class="py-1.5 text-start font-medium">Style</th>
							<th class="py-1.5 text-end font-medium">As living style</th>
							<th class="py-1.5 text-end font-medium">As direct formatting</th>
							<th class="ps-5 py-1.5 text-start font-medium">Read-back</th>
						</tr>
					</thead>
					<tbody>
						{#each account.tables as table (table.index)}
							<tr class="border-b border-hairline align-top last:border-0">
								<td class="py-1.5">{table.index + 1}</td>
								<td class="py-1.5">{table.style}</td>
								<td class="py-1.5 text-end tabular-nums">{number.format(table.living)}</td>
								<td class="py-1.5 text-end tabular-nums">{number.format(table.direct)}</td>
								<td class="ps-5 py-1.5">
									{#if table.differences.length}
										<ul>
											{#each table.differences.slice(0, 3) as { r, c, what, wanted, got }, i (i)}
												{@const place = `row ${r + 1}, column ${c + 1}`}
												<li class="text-error">
													{#if onjump}<button
															type="button"
															class="min-h-6 underline"
															onclick={() => {
																open = false;
																onjump(table.index, r, c);
															}}>{place}</button
														>{:else}{place}{/if}, {what}: {got} instead of {wanted}
												</li>
											{/each}
										</ul>
										{#if table.differences.length > 3}<span class="text-error"
												>and {plural(table.differences.length - 3, 'more difference')}</span
											>{/if}
									{:else}as intended{/if}
									{#if table.lost}<span class="block text-quiet"
											>this format cannot say: {Object.entries(table.lostWhat)
												.map(([what, count]) => `${what} (${plural(count, 'cell')})`)
												.join(', ')}</span
										>{/if}
								</td>
							</tr>
						{/each}
					</tbody>
				</table>
			{/if}
		</div>
		<p class="text-quiet">Counted in settings: one property of one cell, or one side of it.</p>
	{/if}
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not yet</Button>
		<Button
			primary
			class={account ? '' : 'pointer-events-none opacity-60'}
			href="/api/documents/{id}/file?{address}"
			download
			aria-disabled={!account}
			onclick={() => (open = false)}>{mustFails ? 'Take the file all the same' : 'Take the file'}</Button
		>
	{/snippet}
</Dialog>
