<script lang="ts">
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { plural } from '$lib/core/words.ts';
	import { goto, invalidate } from '$app/navigation';
	import { flatten } from '$lib/core/style/inherit.ts';
	import { call, RequestError } from '$lib/ui/api.ts';
	import BeforeAfter from '$lib/ui/editions/BeforeAfter.svelte';
	import Compare from '$lib/ui/editions/Compare.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { excerpt } from '$lib/workbench/excerpt.ts';
	import { isChanged } from '$lib/workbench/impact.ts';
	import { builtInSpecimen } from '$lib/workbench/specimen.ts';
	import { stateTable } from '$lib/workbench/table.ts';
	import Button from '$lib/ui/controls/Button.svelte';
	import Dialog from '$lib/ui/shell/Dialog.svelte';

	let { data } = $props();
	const id = $derived(data.style.id);
	const name = $derived(data.style.definition.name);
	const newest = $derived(data.editions[0]);
	const next = $derived((newest?.number ?? 0) + 1);
	const { proposal } = $derived(data);
	/** What is proposed is what the draft says. */
	const isProposedNow = $derived(JSON.stringify(proposal?.frozen) === JSON.stringify(data.draft));
	/** The newest edition is what the draft says, and nothing is proposed. */
	const isOut = $derived(data.isPublished && !proposal);
	let note = $state('');
	let left = $state<string[]>([]);
	let isBusy = $state(false);

	const documents = $derived.by(() => {
		const found = new Map<string, { id: string; name: string; tables: typeof data.impacts }>();
		for (const impact of data.impacts) {
			const entry = found.get(impact.document) ?? { id: impact.document, name: impact.documentName, tables: [] };
			entry.tables.push(impact);
			found.set(impact.document, entry);
		}
		return [...found.values()];
	});
	/** Documents with tables that follow and do not wear the newest edition yet. */
	const behind = $derived(
		documents.filter(({ tables }) => tables.some(({ pinned, wears }) => !pinned && wears !== newest?.number))
	);
	const chosen = $derived(behind.filter((document) => !left.includes(document.id)));
	/** Pictures that were asked for when a table was unfolded. */
	let asked: typeof data.pictures = $state.raw([]);
	const pictures = $derived(new Map([...asked, ...data.pictures].map((picture) => [picture.key, picture])));
	async function look({ document, index }: Impact) {
		if (pictures.has(`${document}/${index}`)) return;
		try {
			asked = [...asked, await call('GET', `/api/styles/${id}/impact?document=${document}&table=${index}`)];
		} catch (error) {
			notifyError(error);
		}
	}
	type Impact = (typeof data.impacts)[number];
	const after = $derived(flatten(proposal?.frozen ?? data.draft));
	const versions = $derived([
		...(proposal ? [{ key: 'proposed', words: 'what is proposed', style: proposal.frozen }] : []),
		...(data.isPublished || isProposedNow ? [] : [{ key: 'draft', words: 'the draft', style: data.draft }]),
		...data.editions.map(({ number, frozen }) => ({ key: String(number), words: `edition ${number}`, style: frozen }))
	]);
	const specimen = $derived.by(() => {
		const { specimen } = data;
		return specimen ? excerpt(stateTable(specimen.entry, undefined), specimen.entry.content, 10) : builtInSpecimen();
	});
	const when = (iso: string) =>
		new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

	/** Does something; where somebody else was first, what they did is shown, and it can be done `again`, as this person wanted it. */
	async function work(action: () => Promise<void>, again?: string) {
		isBusy = true;
		try {
			await action();
			await invalidate('heptarch:editions');
		} catch (error) {
			if (again && error instanceof RequestError && error.body.code === 'conflict') {
				await invalidate('heptarch:editions');
				notify(`${error.message} The page shows it now.`, 'error', { words: again, run: () => work(action, again) });
			} else notifyError(error);
		} finally {
			isBusy = false;
		}
	}
	const publish = () =>
		work(async () => {
			const { number } = await call('POST', `/api/styles/${id}/editions`, {
				version: data.style.version,
				note
			});
			note = '';
			notify(`Edition ${number} is out. Documents keep what they wear until you roll it out.`);
		}, 'Publish it as it is now');
	const propose = () =>
		work(async () => {
			await call('POST', `/api/styles/${id}/proposals`, { version: data.style.version, note });
			note = '';
			notify('It is proposed. Another designer of the house finds it on their Desk.');
		}, 'Propose it as it is now');
	let isSendingBack = $state(false);
	const say = (answer: 'publish' | 'send back' | 'take back') =>
		work(async () => {
			const { edition } = await call('PUT', `/api/styles/${id}/proposals/${proposal!.id}`, { answer, note });
			note = '';
			isSendingBack = false;
			if (edition !== null) notify(`Edition ${edition} is out. Documents keep what they wear until you roll it out.`);
			else notify(answer === 'take back' ? 'It is no longer proposed.' : 'It went back, with your note.');
		});
	const rollOut = () =>
		work(async () => {
			const { tables, documents: count } = await call('POST', `/api/styles/${id}/rollouts`, {
				edition: newest!.number,
				documents: chosen.map((document) => document.id)
			});
			notify(`${plural(tables, 'table')} in ${plural(count, 'document')} wear edition ${newest!.number} now.`);
		});
	const takeBack = (rollout: string) =>
		work(async () => {
			const { tables, kept } = await call('DELETE', `/api/rollouts/${rollout}`);
			notify(
				`${plural(tables, 'table')} went back${kept ? `; ${kept} that were given something else since keep that` : ''}.`
			);
		});
	async function restore(number: number) {
		try {
			await call('POST', `/api/styles/${id}/editions/${number}/restore`);
			notify(`The draft is what edition ${number} was. Undo on the bench takes it back.`);
			await goto(`/stylebook/${id}`);
		} catch (error) {
			notifyError(error);
		}
	}
</script>

<svelte:head><title>Editions of {name} · Heptarch</title></svelte:head>
<Shortcuts list={[]} />

<TopBar title="Editions of {name}">
	{#snippet facts()}
		<span class="chip">{newest ? `edition ${newest.number} is out` : 'no edition yet'}</span>
		<span class="chip"
			>{proposal
				? 'an edition is proposed'
				: data.isPublished
					? 'the draft is published'
					: 'the draft is not published'}</span
		>
	{/snippet}
	{#snippet actions()}
		<Button href="/stylebook/{id}">Back to the bench</Button>
		{#if proposal}
			{#if proposal.isMine}
				<Button needs="designer" disabled={isBusy} onclick={() => say('take back')}>Take it back</Button>
			{:else}
				<Button needs="designer" disabled={isBusy} onclick={() => (isSendingBack = true)}>Send it back…</Button>
			{/if}
			<Button
				needs="designer"
				primary
				disabled={isBusy || proposal.isMine}
				title={proposal.isMine ? 'You proposed it; somebody else has to look at it and publish it.' : undefined}
				onclick={() => say('publish')}>Publish edition {next}</Button
			>
		{:else if data.isPublished}
			<Button needs="designer" primary disabled={isBusy || chosen.length === 0} onclick={rollOut}
				>{behind.length ? `Roll out to ${plural(chosen.length, 'document')}` : 'Rolled out everywhere'}</Button
			>
		{:else if data.house.secondEyes}
			<Button needs="designer" primary disabled={isBusy} onclick={propose}>Propose edition {next}</Button>
		{:else}
			<Button needs="designer" primary disabled={isBusy} onclick={publish}>Publish edition {next}</Button>
		{/if}
	{/snippet}
</TopBar>

{#snippet table(impact: Impact, isOpen: boolean)}
	{@const picture = pictures.get(`${impact.document}/${impact.index}`)}
	<li class="card px-3 py-2">
		<details open={isOpen} ontoggle={(event) => event.currentTarget.open && look(impact)}>
			<summary class="flex items-baseline gap-3">
				<span class="font-semibold">{impact.title}</span>
				<span class="text-quiet">wears edition {impact.wears}{impact.pinned ? ', pinned: it keeps that' : ''}</span>
				<span class="ms-auto tabular-nums"
					>{impact.cells + impact.edges === 0
						? 'looks the same'
						: `${impact.cells} of ${plural(impact.allCells, 'cell')}, ${plural(impact.edges, 'edge')} ${impact.pinned ? 'would change' : 'change'}`}</span
				>
			</summary>
			{#if picture}
				<div class="mt-2">
					<BeforeAfter
						excerpt={excerpt(stateTable(picture.entry, picture.state), picture.entry.content, 12)}
						before={picture.before ? flatten(picture.before, () => undefined) : undefined}
						{after}
						house={data.house}
						widths={picture.entry.widths}
						kept={picture.entry.appearance}
						words={[`now, in edition ${impact.wears}`, isOut ? `in edition ${newest!.number}` : `in edition ${next}`]}
					/>
				</div>
			{:else}<p class="mt-1 text-quiet" role="status">Drawing it before and after…</p>{/if}
		</details>
	</li>
{/snippet}

<div class="flex min-h-0 flex-1">
	<main class="min-w-0 flex-1 overflow-y-auto px-5 py-4" aria-label="Editions">
		<h2 class="mb-1 font-semibold">
			{isOut ? `Edition ${newest!.number} in the documents` : `What edition ${next} would change`}
		</h2>
		<p class="mb-3 text-quiet">
			{#if documents.length === 0}No table wears this style, so nothing changes anywhere.{:else}Publishing changes no
				document. Rolling out gives the edition to the tables that follow, in the documents ticked; a file that was
				handed out stays as it is, and is written anew when it is taken again.{/if}
		</p>
		{#each documents as document (document.id)}
			{@const isBehind = behind.some((other) => other.id === document.id)}
			{@const changed = document.tables.filter(isChanged)}
			{@const same = document.tables.filter((impact) => !isChanged(impact))}
			<section class="mb-4" aria-label={document.name}>
				<label class="mb-1.5 flex items-center gap-2 font-semibold">
					{#if isOut}
						<input
							type="checkbox"
							class="rounded-sm text-picked"
							disabled={!isBehind}
							checked={isBehind && !left.includes(document.id)}
							onchange={(event) =>
								(left = event.currentTarget.checked
									? left.filter((other) => other !== document.id)
									: [...left, document.id])}
						/>
					{/if}
					{document.name}
					{#if isOut && !isBehind}<span class="font-normal text-quiet">wears it already</span>{/if}
				</label>
				<ul class="flex flex-col gap-2">
					{#each changed as impact (impact.index)}{@render table(impact, changed.length <= 2)}{/each}
				</ul>
				{#if same.length}
					<details class="mt-2">
						<summary class="text-quiet"
							>{plural(same.length, 'table')}
							{same.length === 1 ? 'stays' : 'stay'} as {same.length === 1 ? 'it is' : 'they are'}</summary
						>
						<ul class="mt-2 flex flex-col gap-2">
							{#each same as impact (impact.index)}{@render table(impact, false)}{/each}
						</ul>
					</details>
				{/if}
			</section>
		{/each}
		{#if versions.length > 1}
			<Compare
				{versions}
				excerpt={specimen}
				{...data.specimen && { widths: data.specimen.entry.widths }}
				house={data.house}
			/>
		{/if}
	</main>
	<aside
		class="w-[330px] shrink-0 overflow-y-auto border-s border-hairline bg-paper px-4 py-4"
		aria-label="Editions and roll-outs"
	>
		{#if proposal}
			<section class="mb-5 rounded-lg bg-warning-wash px-3 py-2 text-warning-text" aria-label="Proposed">
				<p>
					<strong>Edition {next} is proposed</strong> by {proposal.isMine ? 'you' : (proposal.by ?? 'somebody')},
					{when(proposal.when)}.
					{proposal.isMine
						? 'Another designer of the house looks at it, and publishes it or sends it back.'
						: 'Look at what it changes; then publish it, or send it back with a note.'}
				</p>
				{#if proposal.note}<p class="mt-1 whitespace-pre-line">{proposal.note}</p>{/if}
			</section>
		{:else if !data.isPublished}
			<label class="mb-5 block"
				><span class="font-semibold">Note to edition {next}</span>
				<textarea
					class="field mt-1 w-full"
					rows="3"
					maxlength="2000"
					placeholder="What changed, and why"
					aria-label="Note"
					bind:value={note}></textarea></label
			>
		{/if}
		<h2 class="mb-1 font-semibold">Editions</h2>
		<ul class="mb-5">
			{#each data.editions as { number, note: words, publishedAt, by, proposedBy } (number)}
				<li class="flex items-start gap-2 border-b border-hairline py-2 last:border-0">
					<div class="min-w-0 flex-1">
						<strong>Edition {number}</strong> <span class="text-quiet">{when(publishedAt)}</span>
						{#if by}<span class="text-quiet"
								>by {by}{proposedBy && proposedBy !== by ? `, proposed by ${proposedBy}` : ''}</span
							>{/if}
						{#if words}<p class="text-[12.5px] whitespace-pre-line text-quiet">{words}</p>{/if}
					</div>
					<Button needs="designer" small onclick={() => restore(number)}>Restore</Button>
				</li>
			{:else}
				<li class="text-quiet">
					None yet. {data.house.secondEyes
						? 'The first is proposed here, and published by somebody else.'
						: 'The first is published by you, or by itself when a table of a document puts the style on.'}
				</li>
			{/each}
		</ul>
		{#if data.sentBack.length}
			<h2 class="mb-1 font-semibold">Proposals that went back</h2>
			<ul class="mb-5">
				{#each data.sentBack as { id: key, by, answer, answeredBy, answerNote, when: at } (key)}
					<li class="border-b border-hairline py-2 last:border-0">
						{by ? `${by}’s` : 'One'} was {answer}
						{#if answer === 'sent back' && answeredBy}by {answeredBy}{/if} <span class="text-quiet">{when(at)}</span>
						{#if answerNote}<p class="text-[12.5px] whitespace-pre-line text-quiet">{answerNote}</p>{/if}
					</li>
				{/each}
			</ul>
		{/if}
		<h2 class="mb-1 font-semibold">Roll-outs</h2>
		<ul>
			{#each data.rollouts as rollout (rollout.id)}
				<li class="flex items-center gap-2 border-b border-hairline py-2 last:border-0">
					<span class="flex-1"
						>Edition {rollout.edition}: {plural(rollout.tables, 'table')} in {plural(rollout.documents, 'document')}
						<span class="text-quiet">{when(rollout.at)}</span></span
					>
					{#if rollout.undone}<span class="text-quiet">taken back</span>{:else}<Button
							small
							needs="designer"
							disabled={isBusy}
							onclick={() => takeBack(rollout.id)}>Take back</Button
						>{/if}
				</li>
			{:else}
				<li class="text-quiet">None yet.</li>
			{/each}
		</ul>
	</aside>
</div>

<Dialog bind:open={isSendingBack} title="Send edition {next} back?">
	<form
		id="send-back"
		onsubmit={(event) => {
			event.preventDefault();
			void say('send back');
		}}
	>
		<label class="block"
			>What is to be done before it can be out
			<textarea class="field mt-1 w-full" rows="4" maxlength="2000" required bind:value={note}></textarea></label
		>
	</form>
	{#snippet answers()}
		<Button onclick={() => (isSendingBack = false)}>Keep looking</Button>
		<Button primary type="submit" form="send-back" disabled={isBusy || !note.trim()}>Send it back</Button>
	{/snippet}
</Dialog>
