<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import type { Gives } from '$lib/server/http/contract.ts';
	import { call } from '../api.ts';
	import Button from '../controls/Button.svelte';
	import { notify, notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';

	/** A newer file in the place of the document's: which table is which, and what comes along, before it is done. */
	let {
		file = $bindable(),
		id,
		name,
		version,
		ondone
	}: { file: File | undefined; id: string; name: string; version: number; ondone: () => Promise<void> } = $props();
	type Preview = Gives<'POST /api/documents/*/newer'>;
	let preview = $state.raw<Preview>();
	let problem = $state('');
	/** Pairs as somebody said them; as they were found where nobody did. */
	let said = $state.raw<readonly (readonly [number, number])[]>();
	let busy = $state(false);
	const pairsIn = (found: Preview) => found.pairs.map((pair) => [pair.old, pair.new] as const);
	const address = (more: string) => {
		const pairs = said ? `&pairs=${said.map((pair) => pair.join(':')).join(',')}` : '';
		return `/api/documents/${id}/newer?name=${encodeURIComponent(file!.name)}${pairs}${more}` as const;
	};
	let turn = 0;
	async function look() {
		const mine = ++turn;
		try {
			const found = await call('POST', address(''), file!);
			if (mine !== turn) return;
			preview = found;
			problem = '';
		} catch (error) {
			if (mine === turn) problem = (error as Error).message;
		}
	}
	let looked: File | undefined;
	$effect(() => {
		if (!file || looked === file) return;
		looked = file;
		[preview, said, problem] = [undefined, undefined, ''];
		void look();
	});
	function choose(old: number, value: string) {
		const now = value === '' ? undefined : Number(value);
		const others = (said ?? pairsIn(preview!)).filter((pair) => pair[0] !== old && pair[1] !== now);
		said = now === undefined ? others : [...others, [old, now] as const].sort(([a], [b]) => a - b);
		void look();
	}
	async function put() {
		busy = true;
		try {
			const { tables } = await call('PUT', address(`&version=${version}`), file!);
			await ondone();
			notify(
				`“${file!.name}” is in the place of the file before; ${pluralWord(tables, 'one table is', `${tables} tables are`)} what ${pluralWord(tables, 'it was', 'they were')}. Ctrl+Z takes it back.`
			);
			file = undefined;
		} catch (error) {
			notifyError(error);
		} finally {
			busy = false;
		}
	}
	const gone = $derived(
		preview?.old.flatMap((one, i) => (preview!.pairs.some((pair) => pair.old === i) ? [] : [one.name])) ?? []
	);
	const fresh = $derived(
		preview?.new.flatMap((one, i) =>
			preview!.pairs.some((pair) => pair.new === i) || preview!.takenOut.includes(i) ? [] : [one]
		) ?? []
	);
	const rowWords = ({ added, gone: out, changed }: Preview['pairs'][number]['rows']) =>
		[
			...(added ? [`${plural(added, 'row')} added`] : []),
			...(out ? [`${plural(out, 'row')} gone`] : []),
			...(changed ? [`${plural(changed, 'row')} changed`] : [])
		].join(', ') || 'no row differs';
</script>

<Dialog bind:open={() => !!file, (isOpen) => !isOpen && (file = undefined)} title="Put a newer file in its place" wide>
	{#if problem}
		<p class="rounded-lg bg-warning-wash px-3 py-2 text-warning-text" role="alert">{problem}</p>
	{/if}
	{#if !preview}
		{#if !problem}<p class="text-quiet" role="status">Looking which table of “{file?.name}” is which…</p>{/if}
	{:else}
		<p>
			The tables of “{file?.name}” wear what those of “{name}” do now, with their corrections and touches. It is one
			step; the file before stays in the steps before it.
		</p>
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div class="mt-3 max-h-[48vh] overflow-y-auto" role="region" aria-label="Which table is which" tabindex="0">
			<table class="w-full text-start">
				<thead>
					<tr class="text-[12px] text-quiet">
						<th class="py-1 text-start font-medium" scope="col">Table now</th>
						<th class="py-1 text-start font-medium" scope="col">In the newer file</th>
						<th class="py-1 text-start font-medium" scope="col">Its rows</th>
					</tr>
				</thead>
				<tbody>
					{#each preview.old as one, i (i)}
						{@const pair = preview.pairs.find(({ old }) => old === i)}
						<tr class="border-t border-hairline align-top">
							<td class="py-1.5 pe-3"><span class="me-1.5 text-quiet">{i + 1}</span>{one.name}</td>
							<td class="py-1.5 pe-3">
								<select
									class="field w-full"
									aria-label="What table {i + 1} is in the newer file"
									value={pair ? String(pair.new) : ''}
									onchange={(event) => choose(i, event.currentTarget.value)}
								>
									<option value="">gone</option>
									{#each preview.new as called, j (j)}<option value={String(j)}>{j + 1} · {called}</option>{/each}
								</select>
								{#if pair}<p class="mt-0.5 text-[12px] text-quiet" title={pair.why.join('; ')}>
										{pair.why[0] ?? ''}
									</p>{/if}
							</td>
							<td class="py-1.5">
								{pair ? rowWords(pair.rows) : ''}
								{#if pair?.left.length}
									<p class="text-[12px] text-warning-text">does not come along: {pair.left.join(', ')}</p>
								{/if}
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
		{#if fresh.length}<p class="mt-3 text-quiet">New: {fresh.join(', ')}.</p>{/if}
		{#if gone.length}<p class="mt-1 text-quiet">Gone: {gone.join(', ')}.</p>{/if}
		{#if preview.takenOut.length}
			<p class="mt-1 text-quiet">
				{pluralWord(preview.takenOut.length, 'A table that was', 'Tables that were')} taken out here {pluralWord(
					preview.takenOut.length,
					'stays',
					'stay'
				)} out.
			</p>
		{/if}
		{#each preview.remarks as remark (remark)}<p class="mt-1 text-warning-text">{remark}</p>{/each}
	{/if}
	{#snippet answers()}
		<Button onclick={() => (file = undefined)}>Not now</Button>
		<Button primary disabled={!preview || busy || !!problem} onclick={put}>Put it in its place</Button>
	{/snippet}
</Dialog>
