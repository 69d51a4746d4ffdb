<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import type { loadLooks, LookGroup } from '$lib/server/census/read.ts';
	import type { CensusOf } from '$lib/server/census/among.ts';
	import Button from '../controls/Button.svelte';
	import LiftDialog from '../documents/LiftDialog.svelte';
	import RunDialog from '../documents/RunDialog.svelte';
	import TablePicture from '../stylebook/TablePicture.svelte';
	import type { Chart } from './charts.ts';
	import Figure from './Figure.svelte';
	import type { DrawChart } from './inks.ts';
	import TablesDialog from './TablesDialog.svelte';

	/** Tables grouped by how they look: what there is, how near that is to a house style, and what can be done about it. */
	interface Props {
		found: Awaited<ReturnType<typeof loadLooks>>;
		of: CensusOf;
		query: URLSearchParams;
		styles: readonly { readonly id: string; readonly name: string }[];
	}
	let { found, of, query, styles }: Props = $props();
	const { groups, all } = $derived(found);
	const onMap = $derived(groups.filter(({ spot }) => spot));
	let ticked = $state<number[]>([]);
	const chosen = $derived(groups.filter(({ id }) => ticked.includes(id)));
	const tables = $derived(chosen.reduce((sum, one) => sum + one.tables, 0));
	let giving = $state(false);
	let lifting = $state(false);
	let listing = $state(false);
	const listed = $derived(
		new URLSearchParams([...query, ...chosen.map(({ id }) => ['look', String(id)] as [string, string])])
	);

	const nameOf = (group: LookGroup) => `Look ${groups.indexOf(group) + 1}`;
	const apart = (distance: number) => `${Math.round(distance * 100)} % apart`;
	const nearest = ({ nearest: style }: LookGroup) =>
		style ? `${style.name}, ${style.distance < 0.005 ? 'the same' : apart(style.distance)}` : 'none';
	const wornWords = ({ wears, tables: count }: LookGroup) => {
		const styled = wears.reduce((sum, one) => sum + one.tables, 0);
		if (!styled) return 'in no house style';
		const names = wears.map(({ name, tables: some }) => `${some} in ${name}`).join(', ');
		return styled === count ? names : `${names}, ${count - styled} in none`;
	};

	const draw: DrawChart = $derived((inks) => {
		const most = Math.max(1, ...onMap.map((one) => one.tables));
		const isStyled = ({ wears }: LookGroup) => wears.length > 0;
		const series = (name: string, wanted: boolean, ink: string, symbol: string) => ({
			type: 'scatter',
			name,
			symbol,
			color: ink,
			itemStyle: { borderColor: inks.sheet, borderWidth: 1, opacity: 0.9 },
			// By area, so that twice as many tables are twice as much to see.
			symbolSize: (value: number[]) => 9 + 34 * Math.sqrt((value[2] ?? 0) / most),
			label: { show: true, formatter: '{b}', position: 'right', color: inks.ink, fontSize: 11 },
			labelLayout: { hideOverlap: true },
			data: onMap
				.filter((one) => isStyled(one) === wanted)
				.map((one) => ({
					name: nameOf(one).replace('Look ', ''),
					value: [...one.spot!, one.tables],
					id: one.id,
					...(ticked.includes(one.id) && { itemStyle: { borderColor: inks.accent, borderWidth: 3 } })
				}))
		});
		const axis = { type: 'value', min: -1.15, max: 1.15, show: false };
		return {
			grid: { left: 8, right: 8, top: 34, bottom: 8 },
			legend: { top: 0, left: 0, textStyle: { color: inks.ink } },
			tooltip: { formatter: ({ data }: { data: { id: number } }) => tip(data.id) },
			xAxis: axis,
			yAxis: axis,
			brush: {
				toolbox: [],
				xAxisIndex: 0,
				brushType: 'polygon',
				throttleType: 'debounce',
				throttleDelay: 150,
				// What is chosen has a rim; the brush itself changes no colour.
				inBrush: { opacity: 0.9 },
				outOfBrush: { opacity: 0.9 }
			},
			series: [
				series('wears a house style', true, inks.picked, 'circle'),
				series('wears none', false, inks.warning, 'diamond')
			]
		};
	});
	const tip = (id: number): string => {
		const one = groups.find((group) => group.id === id);
		return one ? `${nameOf(one)}: ${plural(one.tables, 'table')}, ${wornWords(one)}` : '';
	};
	interface Brushed {
		readonly batch?: readonly {
			readonly selected: readonly { readonly seriesIndex: number; readonly dataIndex: readonly number[] }[];
		}[];
	}
	let chart = $state.raw<Chart>();
	let isLasso = $state(false);
	function ready(made: Chart) {
		chart = made;
		made.on('brushselected', (event) => {
			const parts = (event as Brushed).batch?.[0]?.selected ?? [];
			const byWorn = [true, false].map((wanted) => onMap.filter(({ wears }) => wears.length > 0 === wanted));
			const inside = parts.flatMap(({ seriesIndex, dataIndex }) =>
				dataIndex.flatMap((at) => byWorn[seriesIndex]?.[at]?.id ?? [])
			);
			if (inside.length) ticked = inside;
		});
		made.on('click', (event) => {
			const { id } = event.data as unknown as { id: number };
			tick(id);
		});
	}
	/** While it is on, dragging draws around what is chosen. */
	function lasso(on: boolean) {
		isLasso = on;
		chart?.dispatchAction({
			type: 'takeGlobalCursor',
			key: 'brush',
			brushOption: { brushType: on ? 'polygon' : false, brushMode: 'single' }
		});
		if (!on) chart?.dispatchAction({ type: 'brush', areas: [] });
	}
	const tick = (id: number) =>
		(ticked = ticked.includes(id) ? ticked.filter((other) => other !== id) : [...ticked, id]);
</script>

<p class="mb-4 max-w-3xl font-title text-[22px]" data-looks>
	{plural(all, 'look')}{all > groups.length ? `; the ${groups.length} most frequent are shown` : ''}.
</p>

<Figure
	title="Looks by likeness"
	lead="What stands near looks alike; the larger, the more tables. Click to choose, or draw around several."
	columns={[
		{ words: 'Look' },
		{ words: 'Tables', isFigure: true },
		{ words: 'Files', isFigure: true },
		{ words: 'Nearest style' }
	]}
	rows={groups.map((one) => [nameOf(one), one.tables, one.documents, nearest(one)])}
	height={320}
	{draw}
	onready={ready}
>
	{#snippet first(row, words)}
		{@const group = groups[row]!}
		<label class="flex min-h-6 items-center gap-1.5 whitespace-nowrap"
			><input
				type="checkbox"
				class="rounded-sm text-picked"
				checked={ticked.includes(group.id)}
				onchange={() => tick(group.id)}
			/>{words}</label
		>
	{/snippet}
</Figure>

<div
	class="sticky top-0 z-10 mb-3 flex min-h-11 flex-wrap items-center gap-2 bg-paper py-1.5"
	role="group"
	aria-label="Chosen looks"
>
	<p class="font-semibold" aria-live="polite" data-chosen>
		{chosen.length ? `${plural(chosen.length, 'look')} chosen, ${plural(tables, 'table')}` : 'No look chosen'}
	</p>
	<Button small aria-pressed={isLasso} onclick={() => lasso(!isLasso)}>Draw around</Button>
	<Button small disabled={!chosen.length} onclick={() => (ticked = [])}>Choose none</Button>
	<span class="ms-auto flex gap-2">
		<Button small disabled={!chosen.length} onclick={() => (listing = true)}>Which tables…</Button>
		<Button needs="designer" small disabled={chosen.length !== 1} onclick={() => (lifting = true)}
			>Lift a style from it…</Button
		>
		<Button needs="author" small disabled={!chosen.length || !styles.length} onclick={() => (giving = true)}
			>Give {pluralWord(chosen.length, 'it', 'them')} a style…</Button
		>
	</span>
</div>

<ul class="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3" aria-label="Looks">
	{#each groups as group (group.id)}
		{@const isOn = ticked.includes(group.id)}
		<li>
			<button
				type="button"
				class={[
					'card w-full overflow-hidden text-start hover:border-quiet',
					isOn && 'border-picked! ring-1 ring-picked'
				]}
				aria-pressed={isOn}
				onclick={() => tick(group.id)}
			>
				{#if group.picture}<TablePicture picture={group.picture} scale={0.42} height={112} />{:else}<span
						class="flex h-28 items-center justify-center text-quiet">being drawn</span
					>{/if}
				<span class="block border-t border-hairline px-3 py-2">
					<strong class="font-semibold">{nameOf(group)}</strong>
					<span class="text-quiet">· {plural(group.tables, 'table')} in {plural(group.documents, 'file')}</span>
					<span class="block truncate text-[12px] text-quiet" title={wornWords(group)}>{wornWords(group)}</span>
					<span class="block truncate text-[12px] text-quiet">nearest style: {nearest(group)}</span>
				</span>
			</button>
		</li>
	{/each}
</ul>

<RunDialog
	bind:open={giving}
	title="Give {plural(tables, 'table')} a style"
	lead="Every table of {pluralWord(chosen.length, 'this look', 'these looks')} wears the style from then on."
	what={{
		...of,
		among: { looks: chosen.map(({ id }) => id) },
		...(chosen[0]?.nearest && { style: chosen[0].nearest.id })
	}}
	{styles}
/>
<TablesDialog bind:open={listing} title="Tables of {plural(chosen.length, 'look')}" query={listed} />
{#if chosen[0]}
	{@const { one } = chosen[0]}
	<LiftDialog
		bind:open={lifting}
		id={one.document}
		table={one.index}
		place="{nameOf(chosen[0])}, from “{one.title}”"
		version={one.version}
		isWorn={chosen[0].wears.length > 0}
		onworn={() => undefined}
		onlifted={() => (giving = true)}
	/>
{/if}
