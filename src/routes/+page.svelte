<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { accepted, kindWords } from '$lib/formats/kinds.ts';
	import FileChooser from '$lib/ui/controls/FileChooser.svelte';
	import Button from '$lib/ui/controls/Button.svelte';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { Arrivals } from '$lib/ui/documents/arrivals.svelte.ts';
	import ArrivalsBanner from '$lib/ui/documents/ArrivalsBanner.svelte';
	import DropTarget from '$lib/ui/documents/DropTarget.svelte';
	import { addressOf } from '$lib/ui/documents/kinds.ts';
	import NameHouse from '$lib/ui/people/NameHouse.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import TablePicture from '$lib/ui/stylebook/TablePicture.svelte';

	let { data } = $props();
	let chooser: FileChooser;
	const arrivals = new Arrivals(() => invalidate('heptarch:desk'));
	const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
	/** What a house that is just begun does first; a step that is done stays to be seen. */
	const steps = $derived([
		{
			words: 'Bring a document',
			why: 'A report, a page, a drawing or rows. Drop it anywhere here; its tables are recognised at once, and nothing in the file changes.',
			done: data.documents > 0,
			does: 'Choose a document…',
			run: () => chooser.choose()
		},
		{
			words: 'Make a style',
			why: 'Begin blank, from a table that looks right already, or from the table styles of a template.',
			done: data.styles > 0,
			does: 'To the Stylebook',
			href: '/stylebook'
		},
		{
			words: 'Put it on the tables',
			why: 'Open the document, point at the style to see it on your own table, and take the file back in its own format.',
			done: data.worn,
			does: data.recent[0] ? `Open ${data.recent[0].name}` : 'Bring a document first',
			href: data.recent[0] && addressOf(data.recent[0])
		}
	]);
	const isNew = $derived(steps.some(({ done }) => !done));
	const waits = $derived(data.proposed.length + data.unpublished.length + data.findings.length + data.behind.length);
</script>

<svelte:head><title>Desk · Heptarch</title></svelte:head>
<Shortcuts list={[]} />
<svelte:window onpaste={arrivals.paste} />
<DropTarget ondrop={(files) => arrivals.take(files)} />
<TopBar title="Desk">
	{#snippet actions()}
		<Button needs="author" href="/starters/begin">Make a table…</Button>
		<Button needs="author" primary onclick={() => chooser.choose()}>Add documents…</Button>
	{/snippet}
</TopBar>
<FileChooser
	bind:this={chooser}
	label="Documents to add"
	accept={accepted()}
	onchoose={(files) => arrivals.take(files)}
/>

<main class="flex-1 overflow-y-auto px-5 py-5">
	<ArrivalsBanner {arrivals} />
	{#if isNew}
		{#if data.who!.houseName === 'New house'}<div class="mb-4"><NameHouse name="" /></div>{/if}
		<ol class="mb-6 grid grid-cols-3 gap-4" aria-label="First steps">
			{#each steps as { words, why, done, does, run, href }, i (words)}
				<li class={['card flex flex-col px-4 py-3.5', done && 'bg-picked-wash!']}>
					<h2 class="font-title text-[18px]">
						<span class="me-1.5 text-quiet tabular-nums">{i + 1}</span>{words}{#if done}<span
								class="ms-2 text-[13px] font-normal text-picked">done</span
							>{/if}
					</h2>
					<p class="mt-1 mb-3 text-quiet">{why}</p>
					{#if !done && (run || href)}
						<div class="mt-auto">
							<Button primary={steps.findIndex((step) => !step.done) === i} {href} onclick={run}>{does}</Button>
						</div>
					{/if}
				</li>
			{/each}
		</ol>
	{/if}
	<div class="grid grid-cols-[minmax(0,1fr)_320px] items-start gap-6">
		<section aria-label="Worked on last">
			<h2 class="mb-2 font-semibold">Worked on last</h2>
			<ul class="grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-4">
				{#each data.recent as document (document.id)}
					<li class="card overflow-hidden hover:border-quiet">
						<a class="block" href={addressOf(document)}>
							{#if document.picture}
								<TablePicture picture={document.picture} />
							{:else}
								<div class="flex h-[132px] items-center justify-center bg-desk text-quiet">no table yet</div>
							{/if}
							<span class="block border-t border-hairline px-3.5 py-2.5">
								<strong class="block truncate font-semibold">{document.name}</strong>
								<span class="block truncate text-[12px] text-quiet"
									>{kindWords(document.kind)} · {document.styled
										? `${document.styled} of ${plural(document.tables, 'table')} in a house style`
										: plural(document.tables, 'table')}</span
								>
								<span class="flex gap-2 text-[12px] text-quiet"
									><span class="min-w-0 flex-1 truncate">{document.label}</span><time
										class="shrink-0"
										datetime={document.when}>{moment.format(new Date(document.when))}</time
									></span
								>
							</span>
						</a>
					</li>
				{:else}
					<li class="text-quiet">Nothing yet: what you work on stands here, with a picture of its table.</li>
				{/each}
			</ul>
		</section>
		<div class="flex flex-col gap-5">
			<section aria-label="Waiting for you">
				<h2 class="mb-1 font-semibold">Waiting for you</h2>
				<ul>
					{#each data.proposed as { id, name, by } (id)}
						<li class="line">
							<a href="/stylebook/{id}/editions">{name}</a>
							<span>an edition is proposed{by ? ` by ${by}` : ''}, and wants a second pair of eyes</span>
						</li>
					{/each}
					{#each data.unpublished as { id, name, tables } (id)}
						<li class="line">
							<a href="/stylebook/{id}/editions">{name}</a>
							<span>draft not published{tables ? `, worn by ${plural(tables, 'table')}` : ''}</span>
						</li>
					{/each}
					{#each data.behind as document (document.id)}
						<li class="line">
							<a href={addressOf(document)}>{document.name}</a>
							<span>{plural(document.behind, 'change')} behind its drawing</span>
						</li>
					{/each}
					{#each data.findings as document (document.id)}
						<li class="line">
							<a href={addressOf(document)}>{document.name}</a>
							<span>{plural(document.findings, 'finding')}</span>
						</li>
					{/each}
					{#if !waits}<li class="text-quiet">Nothing.</li>{/if}
				</ul>
			</section>
			<section aria-label="Under way">
				<h2 class="mb-1 font-semibold">Under way</h2>
				<ul>
					{#each data.runs as { id, style, state, all, done, failed } (id)}
						<li class="line">
							<a href="/runs#{id}">{style}</a>
							<span>
								{state === 'running' ? `${done} of ${plural(all, 'document')}` : ''}
								{failed
									? `${failed} ${pluralWord(failed, 'was', 'were')} left as ${pluralWord(failed, 'it was', 'they were')}`
									: ''}
							</span>
						</li>
					{:else}
						<li class="text-quiet">No run is under way.</li>
					{/each}
				</ul>
			</section>
			<section aria-label="New in the house">
				<h2 class="mb-1 font-semibold">New in the house</h2>
				<ul>
					{#each data.news as { what, id, name, kind, words, when } (`${what} ${id} ${words}`)}
						<li class="line">
							<a href={what === 'document' ? addressOf({ id, kind: kind! }) : `/stylebook/${id}`}>{name}</a>
							<span title={moment.format(new Date(when))}>{words}</span>
						</li>
					{:else}
						<li class="text-quiet">Nothing yet.</li>
					{/each}
				</ul>
			</section>
		</div>
	</div>
</main>

<style>
	.line {
		display: flex;
		gap: 0.75rem;
		align-items: baseline;
		border-bottom: 1px solid var(--color-hairline);
		padding: 0.3rem 0;
	}
	.line:last-child {
		border-bottom: 0;
	}
	.line a {
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.line a:hover {
		text-decoration: underline;
	}
	.line span {
		margin-inline-start: auto;
		flex-shrink: 0;
		font-size: 12px;
		color: var(--color-quiet);
	}
</style>
