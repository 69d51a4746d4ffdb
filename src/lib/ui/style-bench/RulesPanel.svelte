<script lang="ts">
	import { tick } from 'svelte';
	import { plural } from '$lib/core/words.ts';
	import { conditionFault, conditionWords } from '$lib/core/style/conditions.ts';
	import { withRules } from '$lib/core/style/edit.ts';
	import type { CellRule } from '$lib/core/style/types.ts';
	import type { Bench } from './bench.svelte.ts';
	import ConditionEditor from './ConditionEditor.svelte';
	import PropertySheet from './PropertySheet.svelte';
	import Segmented from '../controls/Segmented.svelte';
	import type { Parsed } from '../controls/fields.ts';
	import TypedField from '../controls/TypedField.svelte';
	import Button from '../controls/Button.svelte';

	/** Rank VI: the rules in the order in which they apply, and the chosen one: where it holds, what it reaches, what it sets. */
	let { bench }: { bench: Bench } = $props();
	let dragged = $state<string>();
	/** What the chosen rule is: its name stands first. */
	let settings = $state<HTMLElement>();

	const own = $derived(bench.draft.definition.rules ?? []);
	const inherited = $derived(bench.flat.rules.filter(({ name }) => !bench.ownsRule(name)));
	const chosen = $derived(bench.flat.rules.find(({ name }) => `rule:${name}` === bench.place));
	const isOwn = $derived(!!chosen && bench.ownsRule(chosen.name));
	const columns = $derived(
		[
			...new Set(
				bench.specimens.flatMap(({ table }) => table.columnInfo.map(({ name }) => name).filter((name) => name.trim()))
			)
		].sort()
	);
	/** How many cells a rule hits on each specimen. */
	const hits = $derived(
		new Map(
			bench.flat.rules.map(({ name }) => [
				name,
				bench.shown.flatMap(({ specimen, resolved: { structure } }) => {
					const own = structure.signatures.map(({ parts }) => parts.some((part) => part.name === `rule:${name}`));
					const { columns, cells } = structure.table;
					const count = cells.filter(({ r, c }) => own[structure.cellSignature[r * columns + c]!]).length;
					return count ? [{ title: `${specimen.from}, ${specimen.title}`, count }] : [];
				})
			])
		)
	);
	const total = (name: string) => hits.get(name)?.reduce((sum, { count }) => sum + count, 0) ?? 0;

	const put = (rules: readonly CellRule[], label: string) =>
		bench.change(withRules(bench.draft.definition, rules), label);
	const replace = (name: string, change: Partial<CellRule>, label = `rule “${name}”`) =>
		put(
			own.map((rule) => (rule.name === name ? { ...rule, ...change } : rule)),
			label
		);
	function freeName(wanted: string): string {
		const taken = new Set(bench.flat.rules.map(({ name }) => name));
		for (let n = 1; ; n++) {
			const name = n === 1 ? wanted : `${wanted} ${n}`;
			if (!taken.has(name)) return name;
		}
	}
	function add() {
		const name = freeName('below zero');
		const column = columns.find((one) => /variance|change|balance/i.test(one));
		put(
			[
				...own,
				{
					name,
					where: column ? { column, is: '<', value: 0 } : { any: true, is: '<', value: 0 },
					set: {}
				}
			],
			`rule “${name}” begun`
		);
		bench.choose(`rule:${name}`);
		void tick().then(() => settings?.querySelector('input')?.select());
	}
	/** A rule of a base is changed by taking a copy of it, which stands in its place. */
	function takeCopy() {
		const { style: _s, leaves: _l, ...rule } = chosen!;
		put([...own, rule], `rule “${rule.name}” changed here`);
	}
	const parseName = (name: string): Parsed<string> =>
		bench.flat.rules.some((rule) => rule.name === name)
			? { fault: `There is a rule “${name}” already.` }
			: { value: name };
	function rename(name: string) {
		const old = chosen!.name;
		replace(old, { name }, `rule “${old}” is “${name}” now`);
		bench.choose(`rule:${name}`);
	}
	function move(name: string, to: number) {
		const from = own.findIndex((rule) => rule.name === name);
		if (from < 0 || to < 0 || to >= own.length || to === from) return;
		const rest = own.filter((_, i) => i !== from);
		put([...rest.slice(0, to), own[from]!, ...rest.slice(to)], `rule “${name}” moved`);
	}
	function remove(name: string) {
		put(
			own.filter((rule) => rule.name !== name),
			`rule “${name}” taken out`
		);
		bench.chooseRank(6);
	}
	const reaches = [
		['cell', 'the cell'],
		['row', 'its row'],
		['column', 'its column']
	] as const;
</script>

<div class="border-b border-hairline px-4 py-3">
	<ul class="flex flex-col gap-1" aria-label="Cell rules">
		{#each [...inherited, ...own] as rule, i (rule.name)}
			{@const mine = bench.ownsRule(rule.name)}
			{@const at = i - inherited.length}
			<li
				class={[
					'flex items-center gap-1.5 rounded-lg border px-2 py-1',
					bench.place === `rule:${rule.name}` ? 'border-picked bg-picked-wash' : 'border-hairline bg-sheet',
					dragged === rule.name && 'opacity-50'
				]}
				draggable={mine}
				ondragstart={() => (dragged = rule.name)}
				ondragover={(event) => dragged && mine && event.preventDefault()}
				ondrop={(event) => {
					event.preventDefault();
					if (dragged && mine) move(dragged, at);
					dragged = undefined;
				}}
				ondragend={() => (dragged = undefined)}
			>
				<input
					type="checkbox"
					class="h-4 w-4 rounded-sm text-picked"
					aria-label="Rule “{rule.name}” is on"
					checked={!rule.off}
					disabled={!mine}
					onchange={(event) => {
						const { off: _, ...on } = own.find(({ name }) => name === rule.name)!;
						put(
							own.map((other) =>
								other.name === rule.name ? (event.currentTarget.checked ? on : { ...on, off: true }) : other
							),
							`rule “${rule.name}” ${event.currentTarget.checked ? 'on' : 'off'}`
						);
					}}
				/>
				<button
					type="button"
					class={['min-h-7 min-w-0 flex-1 truncate text-start', rule.off && 'text-quiet line-through']}
					aria-pressed={bench.place === `rule:${rule.name}`}
					title={conditionWords(rule.where)}
					onclick={() => bench.choose(`rule:${rule.name}`)}
				>
					{rule.name}
				</button>
				<span class="shrink-0 text-[12px] text-quiet tabular-nums">{mine ? '' : 'base · '}{total(rule.name)} cells</span
				>
				{#if mine && own.length > 1}
					<button
						type="button"
						class="p-1 text-quiet hover:text-ink"
						aria-label="“{rule.name}” earlier"
						disabled={at === 0}
						onclick={() => move(rule.name, at - 1)}>↑</button
					>
					<button
						type="button"
						class="p-1 text-quiet hover:text-ink"
						aria-label="“{rule.name}” later"
						disabled={at === own.length - 1}
						onclick={() => move(rule.name, at + 1)}>↓</button
					>
				{/if}
			</li>
		{:else}
			<li class="text-quiet">
				No rule yet. A rule gives cells another look where a condition holds, such as figures below zero.
			</li>
		{/each}
	</ul>
	<Button small class="mt-2" onclick={add}>+ rule</Button>
</div>
{#if chosen}
	<div bind:this={settings} class="min-h-0 flex-1 overflow-y-auto px-4 py-3">
		{#if !isOwn}
			<p class="mb-2 text-quiet">This rule comes from {chosen.style}.</p>
			<Button small onclick={takeCopy}>Change it here</Button>
			<p class="mt-3">{conditionWords(chosen.where)}</p>
		{:else}
			<div class="mb-3 flex items-center gap-2">
				<div class="min-w-0 flex-1">
					<TypedField
						class="w-full font-semibold"
						label="Name of the rule"
						text={chosen.name}
						parse={parseName}
						onset={rename}
					/>
				</div>
				<Button small onclick={() => remove(chosen.name)}>Take out</Button>
			</div>
			<section class="mb-3" aria-label="Where">
				<h3 class="mb-1 font-semibold">Where</h3>
				<ConditionEditor
					condition={chosen.where}
					{columns}
					onset={(where) => replace(chosen.name, { where }, `rule “${chosen.name}”: where`)}
				/>
				{#if conditionFault(chosen.where)}<p class="mt-1 text-[12px] text-warning-text" role="alert">
						{conditionFault(chosen.where)}
					</p>{/if}
			</section>
			<section class="mb-3" aria-label="Reaches">
				<h3 class="mb-1 font-semibold">Reaches</h3>
				<Segmented
					label="What it reaches"
					options={reaches}
					value={chosen.extends ?? 'cell'}
					onchange={(value) =>
						replace(
							chosen.name,
							{ extends: value },
							`rule “${chosen.name}”: reaches ${reaches.find(([one]) => one === value)![1]}`
						)}
				/>
			</section>
			<section class="mb-3" aria-label="Hits" data-hits>
				<h3 class="mb-1 font-semibold">Hits {plural(total(chosen.name), 'cell')}</h3>
				{#each hits.get(chosen.name) ?? [] as { title, count } (title)}
					<p class="flex text-[12px] text-quiet">
						<span class="truncate">{title}</span><span class="ms-auto ps-2 tabular-nums">{count}</span>
					</p>
				{/each}
			</section>
			<PropertySheet {bench} />
		{/if}
	</div>
{/if}
