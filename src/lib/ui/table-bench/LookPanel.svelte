<script lang="ts">
	import { pluralWord } from '$lib/core/words.ts';
	import { invalidateAll } from '$app/navigation';
	import { leavesOf } from '$lib/core/style/leaves.ts';
	import { partWords } from '$lib/core/style/parts.ts';
	import type { Condition } from '$lib/core/style/types.ts';
	import { leafWords, valueWords } from '$lib/core/style/words.ts';
	import { cellOf } from '$lib/core/work/table.ts';
	import { promotionOf, touchKey } from '$lib/core/work/promote.ts';
	import { lined, touched, touchList, untouched, withLook } from '$lib/core/work/touches.ts';
	import { call } from '../api.ts';
	import PropertySheet from '../style-bench/PropertySheet.svelte';
	import { notify, notifyError } from '../notices.svelte.ts';
	import type { TableBench } from './bench.svelte.ts';
	import { Touching } from './touching.ts';
	import Button from '../controls/Button.svelte';

	/** How the selected cells look: their touches, and what becomes of them. */
	let { bench }: { bench: TableBench } = $props();
	const touching = $derived(new Touching(bench));
	const list = $derived(touchList(bench.work));
	const own = $derived(
		list.filter(({ r, c }) =>
			bench.selection.ranges.some((one) => r >= one.top && r <= one.bottom && c >= one.start && c <= one.end)
		)
	);
	const SHOWN = 40;

	function remove({ r, c, side }: (typeof list)[number], path?: string) {
		bench.edit('touch removed', (work) =>
			side
				? lined(work, [{ r, c, side }], null)
				: touched(
						work,
						[{ r, c }],
						[...leavesOf(cellOf(work, r, c).touch ?? {})].flatMap(([one]) =>
							path === undefined || one === path ? [[one, undefined] as const] : []
						)
					)
		);
	}
	const removeAll = () =>
		bench.edit('all touches removed', (work) =>
			untouched(work, [{ top: 0, bottom: work.rows.length - 1, start: 0, end: work.columns.length - 1 }])
		);

	/* a touch becomes a setting of the style */
	const focus = $derived(bench.selection.focus);
	const touch = $derived(cellOf(bench.work, focus.r, focus.c).touch);
	const style = $derived(bench.book.get(bench.wears.style));
	const parts = $derived.by(() => {
		const { structure } = bench.resolved;
		const signature = structure.signatures[structure.cellSignature[focus.r * bench.table.columns + focus.c]!]!;
		return signature.parts.filter(({ name }) => !name.startsWith('rule:')).map(({ name }) => name);
	});
	let place = $state('');
	let ruleName = $state('');
	const chosen = $derived(parts.includes(place) || place === 'rule' ? place : (parts.at(-1) ?? ''));
	const worn = $derived((style as { worn?: { tables: number } } | undefined)?.worn?.tables ?? 1);
	const condition = $derived.by((): Condition => {
		const { name, kind } = bench.table.columnInfo[focus.c]!;
		const value = cellOf(bench.work, focus.r, focus.c).text.trim();
		return { ...(name ? { column: name } : { kind }), ...(value ? { is: '=', value } : { is: 'empty' }) };
	});
	const here = $derived(touchKey(bench.work, focus.r, focus.c));
	const promoted = $derived(
		here === undefined ? [] : bench.cells.filter(({ r, c }) => touchKey(bench.work, r, c) === here)
	);
	async function promote() {
		if (here === undefined || !style) return;
		const part = chosen === 'rule' ? undefined : chosen;
		const { structure } = bench.resolved;
		const { set } = promotionOf(bench.work, structure, focus.r, focus.c, part);
		const leaves = [...leavesOf(touch ?? {})];
		const words = chosen === 'rule' ? `rule “${ruleName.trim()}”` : partWords(chosen);
		try {
			await bench.settled();
			const { edition } = await call('POST', `/api/styles/${style.id}/promote`, {
				place: chosen === 'rule' ? `rule:${ruleName.trim()}` : chosen,
				set,
				...(chosen === 'rule' && { where: condition })
			});
			bench.edit(`promoted to ${words}`, (work) => {
				const edges = promoted.flatMap(({ r, c }) => promotionOf(work, structure, r, c, part).edges);
				const bare = touched(
					work,
					promoted,
					leaves.map(([path]) => [path, undefined])
				);
				const next = edges.length ? lined(bare, edges, null) : bare;
				return { ...next, wears: { ...next.wears, edition } };
			});
			await invalidateAll();
			notify(`${words} of “${style.definition.name}” says it now: edition ${edition}, which this table wears.`);
			ruleName = '';
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<section class="mb-3" aria-label="Touches">
	<div class="flex flex-wrap gap-1.5">
		<Button small onclick={() => bench.copyLook()}>Copy this look</Button>
		<Button
			small
			disabled={!bench.copied}
			onclick={() =>
				bench.copied && bench.edit('look put on', (work) => withLook(work, bench.selection.ranges, bench.copied!))}
			>Put it on {pluralWord(bench.cells.length, 'this cell', `${bench.cells.length} cells`)}</Button
		>
		<Button
			small
			disabled={!own.length}
			onclick={() => bench.edit('touches removed', (work) => untouched(work, bench.selection.ranges))}
			>Remove touches here</Button
		>
		<Button small disabled={!list.length} onclick={removeAll}>Remove all {list.length || ''}</Button>
	</div>
</section>
{#if here !== undefined && style}
	<section class="mb-3 rounded-lg border border-hairline bg-sheet px-3 py-2" aria-label="Promote">
		<h3 class="font-semibold">Make it the style’s</h3>
		<p class="mb-1.5 text-[12px] text-quiet">
			The touches of {pluralWord(promoted.length, 'this cell', `${promoted.length} cells`)} become a setting of “{style
				.definition.name}”, published as a new edition. This table wears it{#if worn > 1}; {worn - 1}
				other {worn === 2 ? 'table goes' : 'tables go'} on with theirs until it is rolled out{/if}.
		</p>
		<div class="flex flex-wrap items-center gap-1.5">
			<select
				class="field"
				aria-label="Which part"
				value={chosen}
				onchange={(event) => (place = event.currentTarget.value)}
			>
				{#each parts as part (part)}<option value={part}>{partWords(part)}</option>{/each}
				<option value="rule">a cell rule</option>
			</select>
			{#if chosen === 'rule'}<input
					class="field w-32"
					placeholder="its name"
					aria-label="Name of the rule"
					bind:value={ruleName}
				/>{/if}
			<Button small disabled={chosen === 'rule' && !ruleName.trim()} onclick={promote}>Promote</Button>
		</div>
	</section>
{/if}
<PropertySheet bench={touching} ofRows={false} />
{#if list.length}
	<section class="mb-3" aria-label="All touches">
		<h3 class="mb-0.5 font-semibold">All touches of this table</h3>
		<ul>
			{#each list.slice(0, SHOWN) as one (`${one.r},${one.c},${one.side ?? ''}`)}
				<li class="border-b border-hairline py-1 last:border-0">
					<button type="button" class="text-start hover:underline" onclick={() => bench.select(one.r, one.c)}
						>row {one.r + 1}, column {one.c + 1}{one.side ? `, ${one.side}` : ''}</button
					>
					{#if one.side}
						<button type="button" class="chip" title="Remove" onclick={() => remove(one)}
							>{one.set.lines?.[one.side]?.pattern ?? 'line'} ×</button
						>
					{:else}
						{#each [...leavesOf(one.set)] as [path, value] (path)}
							<button type="button" class="chip" title="Remove" onclick={() => remove(one, path)}
								>{leafWords(path)} {valueWords(path, value)} ×</button
							>
						{/each}
					{/if}
				</li>
			{/each}
		</ul>
		{#if list.length > SHOWN}<p class="pt-1 text-quiet">and {list.length - SHOWN} more</p>{/if}
	</section>
{/if}
