<script lang="ts">
	import { plural } from '$lib/core/words.ts';
	import { partsInUse } from '$lib/workbench/parts.ts';
	import { goto } from '$app/navigation';
	import { ASPECTS, type Aspect } from '$lib/core/style/types.ts';
	import type { Gives } from '$lib/server/http/contract.ts';
	import type { RunWish } from '$lib/server/runs/runs.ts';
	import { call } from '../api.ts';
	import List from '../controls/List.svelte';
	import TablePicture from '../stylebook/TablePicture.svelte';
	import { notifyError } from '../notices.svelte.ts';
	import Dialog from '../shell/Dialog.svelte';
	import PartsAndCarry from './PartsAndCarry.svelte';
	import Button from '../controls/Button.svelte';

	/** A run before it is begun: what it does to which tables, seen before and after. A style is chosen here, with parts and carry. */
	let {
		open = $bindable(),
		title,
		lead,
		what,
		styles
	}: {
		open: boolean;
		title: string;
		/** What it does, as a sentence. */
		lead?: string | undefined;
		what: RunWish;
		/** To choose from; what is to be done is known where there are none. */
		styles?: readonly { readonly id: string; readonly name: string }[] | undefined;
	} = $props();
	type RunPreview = Gives<'POST /api/runs/preview'>;
	const PARTS = partsInUse();
	let style = $state('');
	let isSame = $state(false);
	let takesAll = $state(false);
	let partsOff = $state.raw<string[]>([]);
	let carry = $state.raw<readonly Aspect[]>(ASPECTS);
	const chosen = $derived(styles && (style || (what.style ?? styles[0]?.id ?? '')));
	const wish: RunWish = $derived.by(() => ({
		...what,
		...(chosen && { style: chosen }),
		...(isSame && { partsOff, carry }),
		...(takesAll && { takesAll })
	}));
	/** What the run would do, as far as it is worked out. */
	let preview = $state.raw<RunPreview>();
	const pictures = $derived(new Map((preview?.styles ?? []).map(({ id, picture }) => [id, picture] as const)));
	let isUnseen = $state(false);
	$effect(() => {
		const asked = wish;
		isUnseen = false;
		if (!open || (styles && !asked.style)) return;
		call('POST', '/api/runs/preview', asked)
			.then((found) => asked === wish && (preview = found))
			// What it would look like is not needed to begin it.
			.catch(() => asked === wish && (isUnseen = true));
	});

	async function start() {
		try {
			await call('POST', '/api/runs', wish);
			open = false;
			await goto('/runs');
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<Dialog bind:open {title} wide>
	<p>
		{lead ?? ''}
		{preview?.tables ? `${plural(preview.tables, 'table')} in ${plural(preview.documents, 'document')}.` : ''}
		The run goes on in the background and can be taken back as a whole.
	</p>
	<div class={['my-3 grid gap-5', styles ? 'grid-cols-[300px_minmax(0,1fr)]' : '']}>
		{#if styles}
			<List
				label="Style of the run"
				class="grid max-h-[52vh] auto-rows-min grid-cols-2 gap-2.5 overflow-y-auto p-1"
				columns={2}
				items={styles}
				key={({ id }) => id}
				{chosen}
				onchoose={({ id }) => (style = id)}
				itemClass={(_, isOn) => [
					'overflow-hidden rounded-lg border bg-sheet text-start',
					isOn ? 'border-picked ring-1 ring-picked' : 'border-hairline hover:border-quiet'
				]}
			>
				{#snippet item({ id, name })}
					{@const picture = pictures.get(id)}
					{#if picture}<TablePicture {picture} scale={0.34} height={74} />{/if}
					<span class="block truncate border-t border-hairline px-2 py-1 font-medium">{name}</span>
				{/snippet}
			</List>
		{/if}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div class="max-h-[52vh] overflow-y-auto" aria-label="What it would do" role="region" tabindex="0">
			{#each preview?.shown ?? [] as { name, tables, more, left }, i (i)}
				<h3 class="mb-1 font-semibold">{name}</h3>
				{#each tables as { index, before, after, isHard } (index)}
					<div class="mb-2 grid grid-cols-2 gap-2">
						{#each [before, after] as picture, i (i)}
							<div class="overflow-hidden rounded border border-hairline">
								{#if picture}<TablePicture {picture} scale={0.4} height={92} />{:else}<p
										class="flex h-[92px] items-center justify-center text-quiet"
									>
										stays as it is
									</p>{/if}
								<p class="border-t border-hairline px-2 text-[12px] text-quiet">
									table {index + 1}, {i ? 'as it would be' : 'as it is'}{#if i && isHard}<span class="text-error">
											: text that is hard to read</span
										>{/if}
								</p>
							</div>
						{/each}
					</div>
				{/each}
				{#if more}<p class="mb-3 text-[12px] text-quiet">and {plural(more, 'more table')}</p>{/if}
				{#if left}<p class="mb-3 text-[12px] text-quiet">{left} left as found</p>{/if}
			{:else}
				<p class="text-quiet">
					{isUnseen || preview
						? 'They cannot be shown now; the run can be begun all the same.'
						: 'Looking at the tables…'}
				</p>
			{/each}
			{#if preview && preview.documents > preview.shown.length}
				<p class="text-quiet">and {plural(preview.documents - preview.shown.length, 'more document')}</p>
			{/if}
		</div>
	</div>
	{#if styles}
		<label class="flex items-center gap-2"
			><input type="checkbox" class="rounded-sm text-picked" bind:checked={isSame} />the same parts and carry for all of
			them, in the place of each table’s own</label
		>
		{#if !what.among}<label class="mt-1 flex items-center gap-2"
				><input type="checkbox" class="rounded-sm text-picked" bind:checked={takesAll} />forms and layout tables, too</label
			>{/if}
		{#if isSame}
			<div>
				<PartsAndCarry
					parts={PARTS}
					{partsOff}
					{carry}
					onparts={(off) => (partsOff = off)}
					oncarry={(aspects) => (carry = aspects)}
				/>
			</div>
		{/if}
	{/if}
	{#snippet answers()}
		<Button onclick={() => (open = false)}>Not now</Button>
		<Button primary disabled={styles && !chosen} onclick={start}>Start the run</Button>
	{/snippet}
</Dialog>
