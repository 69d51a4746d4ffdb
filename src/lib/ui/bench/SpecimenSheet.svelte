<script lang="ts">
	import { appearanceOf, type Appearance } from '$lib/core/cascade/look.ts';
	import { resolve, restyle, type House, type Resolved } from '$lib/core/cascade/resolve.ts';
	import type { FlatStyle } from '$lib/core/style/inherit.ts';
	import type { Table } from '$lib/core/table/grid.ts';
	import type { Emu } from '$lib/core/units.ts';
	import type { CellContent } from '$lib/formats/document.ts';
	import TableGrid from '../table/TableGrid.svelte';

	export interface SheetSpecimen {
		readonly key: string;
		readonly from: string;
		readonly title: string;
		readonly table: Table;
		readonly content: readonly (readonly CellContent[])[];
		readonly widths?: readonly Emu[];
		readonly before?: Appearance;
	}
	interface Props {
		specimens: readonly SheetSpecimen[];
		style: FlatStyle;
		house: House;
		/** The parts whose cells stay while the rest dims. */
		spotlight: ReadonlySet<string> | undefined;
		picked: { key: string; cell: number } | undefined;
		/** Show the tables as their files have them. */
		asTheyCame: boolean;
		onpick: (key: string, cell: number, resolved: Resolved) => void;
	}
	let { specimens, style, house, spotlight, picked, asTheyCame, onpick }: Props = $props();

	// Kept from change to change, so that a restyle costs the number of signatures and not of cells.
	const kept = new WeakMap<Table, Resolved>();
	const drawn = $derived(
		specimens.map((specimen) => {
			const before = kept.get(specimen.table);
			const resolved = before ? restyle(before, style, house) : resolve(specimen.table, style, house);
			kept.set(specimen.table, resolved);
			return {
				...specimen,
				resolved,
				appearance: asTheyCame && specimen.before ? specimen.before : appearanceOf(resolved)
			};
		})
	);
	const rules = (resolved: Resolved, cell: number) => {
		const { table, cellSignature, signatures } = resolved.structure;
		const { r, c } = table.cells[cell]!;
		return signatures[cellSignature[r * table.columns + c]!]!.parts.some(({ name }) => spotlight!.has(name));
	};
</script>

<div class="grid grid-flow-dense grid-cols-2 items-start gap-4">
	{#each drawn as { key, from, title, resolved, appearance, content, widths, table } (key)}
		<section
			class={['card min-w-0 overflow-hidden px-4 py-3 shadow-xs', table.columns > 4 && 'col-span-2']}
			aria-label="{from}, {title}"
		>
			<h3 class="mb-2.5 flex gap-2 text-[12px] text-quiet">
				<span class="truncate">{from} · {title}</span><span class="ms-auto shrink-0">{table.cells.length} cells</span>
			</h3>
			<TableGrid
				grid={table}
				{appearance}
				{content}
				{widths}
				zoom={0.92}
				fill
				guides
				spotlight={spotlight ? (cell) => rules(resolved, cell) : undefined}
				picked={picked?.key === key ? picked.cell : undefined}
				onpick={(cell) => onpick(key, cell, resolved)}
				label="{from}, {title}"
			/>
		</section>
	{/each}
</div>
