<script lang="ts">
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { plural } from '$lib/core/words.ts';
	import { invalidate } from '$app/navigation';
	import { call } from '$lib/ui/api.ts';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import type { Run } from '$lib/server/runs/runs.ts';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	/** Authors change runs of their own. */
	const leastFor = (run: { readonly byPerson: string | null }) =>
		run.byPerson === data.who!.person ? 'author' : 'designer';
	const isRunning = $derived(data.runs.some(({ state }) => state === 'running'));
	$effect(() => {
		if (!isRunning) return;
		const timer = setInterval(() => void invalidate('heptarch:runs'), 800);
		return () => clearInterval(timer);
	});

	async function change(run: Run, to: 'stop' | 'resume' | 'undo', said: string) {
		try {
			await call('PUT', `/api/runs/${run.id}`, { to });
			notify(said);
		} catch (error) {
			notifyError(error);
		}
		// Where somebody else was first, the list shows what they did.
		await invalidate('heptarch:runs');
	}
	const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
	const STATES: Record<Run['state'], string> = {
		running: 'under way',
		stopped: 'stopped',
		done: 'done',
		undone: 'taken back'
	};
	const ITEM: Record<string, string> = { waiting: 'waiting', applied: 'being read back', failed: 'not done' };
	const finished = (run: Run) => run.items.filter(({ state }) => state === 'done' || state === 'failed').length;
	const failed = (run: Run) => run.items.filter(({ state }) => state === 'failed').length;
</script>

<svelte:head><title>Runs · Heptarch</title></svelte:head>
<Shortcuts list={[]} />
<TopBar title="Runs">
	{#snippet facts()}{#if data.runs.length}<span class="chip">{plural(data.runs.length, 'run')}</span>{/if}{/snippet}
	{#snippet actions()}<Button needs="author" primary href="/documents">Choose documents…</Button>{/snippet}
</TopBar>

<main class="flex-1 overflow-y-auto px-5 py-5">
	{#if data.runs.length === 0}
		<div class="mx-auto mt-20 max-w-lg text-center">
			<p class="font-title text-[24px]">No run yet</p>
			<p class="mt-2 text-quiet">
				Tick documents in Documents and give them a style. They are worked on in the background, read back one by one,
				and the whole run can be taken back.
			</p>
		</div>
	{/if}
	{#each data.runs as run (run.id)}
		<section class="card mb-4 px-5 py-4" aria-label="Run of {run.style}">
			<div class="flex flex-wrap items-center gap-3">
				<h2 class="font-title text-[18px] font-semibold">
					{run.style}{run.edition ? `, edition ${run.edition}` : ''}
				</h2>
				<span class={['chip', run.state === 'running' && 'on']} data-run-state>{STATES[run.state]}</span>
				<span class="text-quiet">{run.by ? `${run.by}, ` : ''}{when.format(new Date(run.startedAt))}</span>
				<span class="ms-auto flex gap-2">
					{#if run.state === 'running'}<Button
							needs={leastFor(run)}
							small
							onclick={() => change(run, 'stop', 'The run stops; what was begun is finished.')}>Stop</Button
						>{/if}
					{#if run.state === 'stopped'}<Button
							needs={leastFor(run)}
							small
							onclick={() => change(run, 'resume', 'The run goes on.')}>Go on</Button
						>{/if}
					{#if run.state === 'done' || run.state === 'stopped'}
						<Button small href="/api/runs/{run.id}/zip" download>Take all files</Button>
						<Button
							needs={leastFor(run)}
							small
							onclick={() => change(run, 'undo', 'The run was taken back: every table wears what it wore before.')}
							>Take it back</Button
						>
					{/if}
				</span>
			</div>
			<div
				class="mt-3 h-2 overflow-hidden rounded-full bg-desk"
				role="progressbar"
				aria-label="Documents worked on"
				aria-valuemin="0"
				aria-valuemax={run.items.length}
				aria-valuenow={finished(run)}
			>
				<div class="h-full bg-picked" style="width:{(100 * finished(run)) / Math.max(1, run.items.length)}%"></div>
			</div>
			<p class="mt-1.5 text-quiet">
				{finished(run)} of {run.items.length} documents{failed(run) ? `, ${failed(run)} not done` : ''}
			</p>
			<details class="mt-2" open={run.items.length <= 8}>
				<summary class="cursor-pointer">By document</summary>
				<table class="mt-2 w-full">
					<thead class="text-quiet"
						><tr class="border-b border-hairline"
							><th class="py-1.5 text-start font-medium">Document</th><th class="py-1.5 text-end font-medium">Tables</th
							><th class="ps-6 py-1.5 text-start font-medium">Read-back</th><th><span class="sr-only">File</span></th
							></tr
						></thead
					>
					<tbody>
						{#each run.items as item (item.document)}
							<tr class="border-b border-hairline last:border-0">
								<td class="py-1.5"><a class="hover:underline" href="/documents/{item.document}">{item.name}</a></td>
								<td class="py-1.5 text-end tabular-nums">{item.tables || ''}</td>
								<td class={['ps-6 py-1.5', (item.state === 'failed' || item.differences > 0) && 'text-error']}>
									{#if item.state === 'done'}{item.differences
											? `${plural(item.differences, 'difference')}`
											: 'as intended'}{:else}{ITEM[item.state]}{item.reason ? `: ${item.reason}` : ''}{/if}
								</td>
								<td class="py-1.5 text-end"
									>{#if item.state === 'done' && run.state !== 'undone'}<a
											class="underline hover:text-ink"
											href="/api/documents/{item.document}/file"
											download>{item.kind.toUpperCase()}</a
										>{/if}</td
								>
							</tr>
						{/each}
					</tbody>
				</table>
			</details>
		</section>
	{/each}
</main>
