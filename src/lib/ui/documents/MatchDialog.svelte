<script lang="ts">
	import { pluralWord } from '$lib/core/words.ts';
	import { matchWidths } from '$lib/core/layout/match.ts';
	import type { DocumentTable } from '$lib/formats/document.ts';
	import type { TableState } from '$lib/workbench/state.ts';
	import { stateTable, touchesWithin, without } from '$lib/workbench/table.ts';
	import Dialog from '../shell/Dialog.svelte';
	import Button from '../controls/Button.svelte';

	/** One table as the model for others: they get its style, parts and carry, and more of it where it is wanted. */
	let {
		open = $bindable(),
		tables,
		model,
		others,
		style,
		stateOf,
		onmatch
	}: {
		open: boolean;
		tables: readonly DocumentTable[];
		/** Index of the model. */
		model: number;
		/** Indices of the tables that become like it. */
		others: readonly number[];
		style: string;
		stateOf: (index: number) => TableState;
		onmatch: (changed: Record<number, TableState>) => void;
	} = $props();
	let withTouches = $state(false);
	let withWidths = $state(false);
	const own = $derived(stateOf(model));
	const widths = $derived(own.widths?.length ? own.widths : tables[model]!.widths);

	function matched(index: number): TableState {
		const { style: worn, edition, partsOff, carry, dropsEmphasis } = own;
		// Touches can come from the table bench, too.
		const { touches } = stateTable(tables[model]!, own);
		const rest = without(
			stateOf(index),
			'style',
			'edition',
			'pinned',
			'cleared',
			'partsOff',
			'carry',
			'dropsEmphasis',
			...(withTouches ? ['touches' as const] : []),
			...(withWidths ? ['widths' as const] : [])
		);
		const entry = tables[index]!;
		const columns = (at: number) => stateTable(tables[at]!, stateOf(at)).columnInfo;
		return {
			...rest,
			...(worn && { style: worn }),
			...(edition && { edition }),
			...(partsOff && { partsOff: [...partsOff] }),
			...(carry && { carry: [...carry] }),
			...(dropsEmphasis && { dropsEmphasis }),
			...(withTouches && touches.length && { touches: touchesWithin(entry.table, touches) }),
			...(withWidths && {
				widths: matchWidths({ columns: columns(model), widths }, { columns: columns(index), widths: entry.widths })
			})
		};
	}
	function match() {
		open = false;
		onmatch(Object.fromEntries(others.map((index) => [index, matched(index)])));
	}
</script>

<Dialog bind:open title="Match tables to table {model + 1}">
	<p>
		{pluralWord(others.length, `Table ${others[0]! + 1} gets`, `${others.length} tables get`)} the style “{style}”, the
		parts in use and the carry of table {model + 1}. Their rows and columns keep what they are.
	</p>
	<label class="flex items-center gap-2"
		><input
			type="checkbox"
			class="rounded-sm text-picked"
			disabled={!own.touches?.length}
			bind:checked={withTouches}
		/>{own.touches?.length
			? `its ${own.touches.length} touches, too, where the other tables have those cells`
			: 'its touches: it has none'}</label
	>
	<label class="flex items-center gap-2"
		><input
			type="checkbox"
			class="rounded-sm text-picked"
			disabled={widths.length === 0}
			bind:checked={withWidths}
		/>{widths.length
			? 'its column widths, by place, or by name and kind where there are more or fewer columns'
			: 'its column widths: its file gives it none'}</label
	>
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button primary onclick={match}>Match them</Button>
	{/snippet}
</Dialog>
