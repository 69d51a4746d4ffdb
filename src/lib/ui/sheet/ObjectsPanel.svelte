<script lang="ts">
	import { plural, pluralWord } from '$lib/core/words.ts';
	import type { Desk } from './desk.svelte.ts';
	import SymbolMark from './SymbolMark.svelte';
	import TabPanel from '../controls/TabPanel.svelte';
	import Tabs from '../controls/Tabs.svelte';
	import Button from '../controls/Button.svelte';

	/** What the drawing holds: kinds of objects, the clicked one with what it says, layers, and the tables on the sheet. */
	let {
		desk,
		onmake,
		onpick,
		onrevision
	}: { desk: Desk; onmake: () => void; onpick: (index: number) => void; onrevision: () => void } = $props();

	let tab = $state<'objects' | 'layers' | 'tables'>('objects');
	const { kinds, layers } = $derived(desk.data);
	const total = $derived(kinds.reduce((sum, { count }) => sum + count, 0));
	const toggle = (kind: string) =>
		(desk.lit = desk.lit.includes(kind) ? desk.lit.filter((other) => other !== kind) : [...desk.lit, kind]);
	const lit = $derived(kinds.filter(({ kind }) => desk.lit.includes(kind)));

	/** The clicked object with its attributes. */
	const clicked = $derived.by(() => {
		const { objects, object } = desk;
		if (!objects || object < 0 || object >= objects.keys.length) return undefined;
		const said = objects.attributes[object]!;
		const attributes: [name: string, value: string][] = [];
		for (let k = 0; k < said.length; k += 2) attributes.push([objects.names[said[k]!]!, objects.values[said[k + 1]!]!]);
		const kind = objects.kinds[objects.kind[object]!]!;
		return {
			key: objects.keys[object]!,
			kind,
			name: kinds.find((one) => one.kind === kind)?.name ?? kind,
			attributes,
			place: `${((objects.x[object]! * desk.data.sheet.scale) / 1000).toFixed(2)} m, ${((objects.y[object]! * desk.data.sheet.scale) / 1000).toFixed(2)} m`,
			layer: objects.layers[objects.layer[object]!]!
		};
	});
	/** The next object of a kind, or the one before, round and round; by keyboard as well as by the pointer. */
	function step(kind: string, by: 1 | -1) {
		const { objects } = desk;
		const index = objects?.kinds.indexOf(kind) ?? -1;
		if (!objects || index < 0) return;
		const count = objects.kind.length;
		const from = objects.kind[desk.object] === index ? desk.object : by > 0 ? -1 : count;
		for (let i = 1; i <= count; i++) {
			const at = (from + by * i + 2 * count) % count;
			if (objects.kind[at] === index) return void (desk.object = at);
		}
	}
	const feeds = $derived(clicked ? desk.rowsOf(clicked.key) : []);
	const idOf = (key: string) => (key.startsWith('#') ? key.slice(1) : 'without an id');

	async function change(name: string, value: string) {
		const { key } = clicked!;
		await desk.save(`${idOf(key)}: ${name} is ${value || 'empty'}`, ({ attributes = {} }) => ({
			attributes: { ...attributes, [key]: { ...attributes[key], [name]: value } }
		}));
	}
	const hide = (index: number) => {
		const next = new Set(desk.hidden);
		if (!next.delete(index)) next.add(index);
		desk.hidden = next;
	};
</script>

<Tabs
	label="What the drawing holds"
	id="holds"
	tabs={[
		['objects', `Objects · ${total}`],
		['layers', `Layers · ${layers.length}`],
		['tables', `Tables · ${desk.data.placed.length}`]
	]}
	chosen={tab}
	onchoose={(name) => (tab = name)}
/>
<TabPanel id="holds" chosen={tab}>
	{#if tab === 'objects'}
		<ul class="mt-3" aria-label="Kinds of objects">
			{#each kinds as { kind, name, count } (kind)}
				{@const on = desk.lit.includes(kind)}
				<li>
					<button
						type="button"
						aria-pressed={on}
						class={[
							'flex w-full items-center gap-2 rounded-md px-2 py-1 text-start',
							on ? 'bg-accent-wash' : 'hover:bg-paper'
						]}
						onclick={() => toggle(kind)}
						><SymbolMark {name} lit={on} /><span class="min-w-0 flex-1 truncate">{name}</span><span
							class={['tabular-nums', on ? 'text-accent' : 'text-quiet']}>{count}</span
						></button
					>
				</li>
			{:else}
				<li class="text-quiet">
					Nothing in this drawing says what it is: objects are elements with data-… attributes, mostly symbols that are
					used.
				</li>
			{/each}
		</ul>
		{#if clicked}
			<section class="card mt-4 px-3 py-2.5" aria-label="The clicked object">
				<h3 class="flex items-center gap-2 font-semibold">
					<span class="min-w-0 flex-1 truncate">{clicked.name}</span>
					<span class="font-normal text-quiet">{idOf(clicked.key)}</span>
				</h3>
				<dl class="mt-1.5 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1">
					{#each clicked.attributes as [name, value] (name)}
						<dt class="text-quiet">{name}</dt>
						<dd>
							<input
								class="w-full rounded border border-transparent bg-transparent px-1 hover:border-hairline focus:border-hairline focus:bg-sheet"
								aria-label="{name} of this object"
								{value}
								onchange={(event) => change(name, event.currentTarget.value)}
							/>
						</dd>
					{/each}
					<dt class="text-quiet">stands at</dt>
					<dd class="px-1">{clicked.place}</dd>
					{#if clicked.layer}<dt class="text-quiet">layer</dt>
						<dd class="px-1">{clicked.layer}</dd>{/if}
				</dl>
				{#each feeds as { index, row, words } (index + row)}
					<button
						type="button"
						class="mt-1.5 block w-full truncate text-start text-picked underline"
						onclick={() => onpick(index)}>{desk.titleOf(index)}: {words}</button
					>
				{:else}<p class="mt-1.5 text-quiet">No table lists it.</p>{/each}
				<div class="mt-2 flex gap-1.5">
					<Button small onclick={() => step(clicked.kind, -1)}>Previous</Button>
					<Button small onclick={() => step(clicked.kind, 1)}>Next of its kind</Button>
				</div>
			</section>
		{:else if lit.length}
			<section class="card mt-4 px-3 py-2.5" aria-label="What these objects say">
				{#each lit.slice(0, 3) as { kind, name, attributes, layers: on } (kind)}
					<h3 class="font-semibold not-first:mt-2">{name}</h3>
					<dl class="grid grid-cols-[auto_1fr] gap-x-3">
						{#each attributes as { name: attribute, samples } (attribute)}
							<dt class="text-quiet">{attribute}</dt>
							<dd class="truncate">{samples.join(', ')}</dd>
						{/each}
						{#if on.length}<dt class="text-quiet">layer</dt>
							<dd class="truncate">{on.join(', ')}</dd>{/if}
					</dl>
				{/each}
				<Button small class="mt-2" onclick={() => step(lit[0]!.kind, 1)}>Look at the first of them</Button>
			</section>
		{/if}
		{#if kinds.length}
			<Button class="mt-4 w-full justify-center" onclick={onmake}
				>{lit.length
					? `Make a schedule of ${pluralWord(lit.length, 'this kind', `these ${lit.length} kinds`)}…`
					: 'Make a schedule of all…'}</Button
			>
		{/if}
	{:else if tab === 'layers'}
		<ul class="mt-3" aria-label="Layers">
			{#each layers as { name, depth, objects }, index (index)}
				<li style="padding-inline-start:{depth * 14}px">
					<label class="flex items-center gap-2 rounded-md px-2 py-1 hover:bg-paper"
						><input
							type="checkbox"
							class="rounded-sm text-picked"
							checked={!desk.hidden.has(index)}
							onchange={() => hide(index)}
						/><span class="min-w-0 flex-1 truncate">{name}</span><span class="text-quiet tabular-nums"
							>{objects || ''}</span
						></label
					>
				</li>
			{:else}<li class="text-quiet">The drawing has no named groups.</li>{/each}
		</ul>
	{:else}
		<ul class="mt-3" aria-label="Tables on the sheet">
			{#each desk.data.placed as { id }, index (id)}
				{@const changes = desk.data.behind[index]?.changes.length ?? 0}
				{@const out = desk.sumsOut(index).length}
				<li>
					<button
						type="button"
						class="flex w-full items-center gap-2 rounded-md px-2 py-1 text-start hover:bg-paper"
						onclick={() => onpick(index)}
						><span class="min-w-0 flex-1 truncate">{desk.titleOf(index)}</span>{#if changes}<span
								class="chip text-warning-text!">{changes} behind</span
							>{/if}{#if out}<span class="chip text-warning-text!">{plural(out, 'sum')} out</span>{/if}</button
					>
				</li>
			{:else}<li class="text-quiet">None yet.</li>{/each}
		</ul>
		<Button class="mt-3 w-full justify-center" onclick={onrevision}>Add a revision…</Button>
	{/if}
</TabPanel>
