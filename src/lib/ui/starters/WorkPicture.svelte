<script lang="ts">
	import type { House } from '$lib/core/house.ts';
	import { appearanceOf } from '$lib/core/cascade/look.ts';
	import { resolve } from '$lib/core/cascade/resolve.ts';
	import { flatten, type FlatStyle } from '$lib/core/style/inherit.ts';
	import { ASPECTS, type Aspect } from '$lib/core/style/types.ts';
	import { workedOut } from '$lib/core/work/working.ts';
	import { type WorkTable } from '$lib/core/work/table.ts';
	import { tableOf, contentsOf } from '$lib/core/work/convert.ts';
	import TableGrid from '../table/TableGrid.svelte';

	/** A worked table as a small rendering; only its first rows where it is long. */
	let {
		work,
		style,
		house,
		partsOff = [],
		carry = ASPECTS,
		scale = 0.5,
		height = 130,
		most = 14
	}: {
		work: WorkTable;
		style: FlatStyle | undefined;
		house: House;
		partsOff?: readonly string[];
		carry?: readonly Aspect[];
		scale?: number;
		height?: number;
		most?: number;
	} = $props();
	const NO_STYLE = flatten({ format: 'heptarch-style', version: 1, name: 'no style', parts: {} });
	const shown = $derived.by(() => {
		const whole = workedOut(work).work;
		const isCut =
			whole.rows.length > most &&
			!whole.rows
				.slice(0, most)
				.some(({ cells }, r) => cells.some((slot) => 'rows' in slot && r + (slot.rows ?? 1) > most));
		return isCut ? { ...whole, rows: whole.rows.slice(0, most) } : whole;
	});
	const table = $derived({ ...tableOf(shown), partsOff, carry });
	const appearance = $derived(appearanceOf(resolve(table, style ?? NO_STYLE, house)));
</script>

<div class="on-paper overflow-hidden bg-sheet p-2" style="height:{height}px" aria-hidden="true" inert>
	<div style="width:{100 / scale}%;transform:scale({scale});transform-origin:0 0">
		<TableGrid grid={table} {appearance} content={contentsOf(shown)} guides fill />
	</div>
</div>
