<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { onMount, untrack } from 'svelte';
	import {
		leavesOut,
		POLICY_RULES,
		policyRuleNamed,
		wantedWords,
		type Policy,
		type WantedRule
	} from '$lib/core/policy/policy.ts';
	import { PURPOSE_WORDS, PURPOSES, type Purpose } from '$lib/core/recognise/purpose/kinds.ts';
	import { plural } from '$lib/core/words.ts';
	import TablesDialog from '$lib/ui/census/TablesDialog.svelte';
	import Button from '$lib/ui/controls/Button.svelte';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { undoKeys } from '$lib/ui/controls/shortcuts.ts';
	import RunDialog from '$lib/ui/documents/RunDialog.svelte';
	import { HouseWork } from '$lib/ui/house/house.svelte.ts';
	import PolicyRule from '$lib/ui/house/PolicyRule.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import Why from '$lib/ui/people/Why.svelte';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import UndoRedo from '$lib/ui/shell/UndoRedo.svelte';
	import { live } from '$lib/ui/live/live.svelte.ts';
	import Waiting from '$lib/ui/shell/Waiting.svelte';
	import { EMPTY_POLICY } from '$lib/workbench/house.ts';

	let { data } = $props();
	const work = untrack(() => new HouseWork(data.house, data.steps));
	$effect(() => {
		work.house = data.house;
		work.steps = data.steps;
	});
	onMount(() => void work.sender.resume(work.house.version));
	onMount(() => live.whenArrived((arrived) => void work.sender.meet(arrived)));
	const policy = $derived(work.house.policy ?? EMPTY_POLICY);
	const inUse = $derived(policy.rules.length);
	let chooser: HTMLInputElement;
	let at = $state('');
	let listing = $state(false);
	let mending = $state(false);
	const wanted = $derived(policy.rules.find(({ rule }) => rule === at));
	const styles = $derived(
		((wanted?.styles ?? []) as readonly string[]).flatMap((id) => data.styles.find((style) => style.id === id) ?? [])
	);

	async function change(label: string, next: (policy: Policy) => Policy | null) {
		if (await work.setPolicy(label, next)) await invalidate('heptarch:census');
	}
	/** A rule in its place, or without it; rules stand in one order, however they came. */
	const withRule = (rules: readonly WantedRule[], name: string, rule: WantedRule | undefined): WantedRule[] =>
		POLICY_RULES.flatMap((one) => (one.name === name ? rule : rules.find((other) => other.rule === one.name)) ?? []);
	function leaveOut(purpose: Purpose) {
		const isOut = leavesOut(policy, purpose);
		const out = PURPOSES.filter((one) => (one === purpose ? !isOut : leavesOut(policy, one)));
		void change(`${purpose} tables ${isOut ? 'belong to it' : 'left out'}`, (was) => ({ ...was, leavesOut: out }));
	}
	async function takeIn(file: File | undefined) {
		if (!file) return;
		try {
			const taken = JSON.parse(await file.text()) as Policy;
			if (await work.setPolicy(`taken from ${file.name}`.slice(0, 150), () => taken)) {
				notify(`“${file.name}” is the house’s policy now. Ctrl+Z takes it back.`);
				await invalidate('heptarch:census');
			}
		} catch {
			notifyError(new Error(`“${file.name}” is not JSON, so it is no policy.`));
		}
	}
	/** Two rules of one kind are counted as one. */
	const doubled = $derived(policy.rules.length > new Set(policy.rules.map(({ rule }) => rule)).size);
</script>

<svelte:head><title>Policy · Heptarch</title></svelte:head>
<Shortcuts list={undoKeys((by) => work.sender.move(by))} />
<TopBar title="Policy">
	{#snippet facts()}
		<span class="chip">{inUse ? `${plural(inUse, 'rule')} in use` : 'nothing wanted yet'}</span>
		<span class="text-quiet"
			>of {plural(data.counted.tables, 'table')} in {plural(data.counted.documents, 'document')}</span
		>
	{/snippet}
	{#snippet actions()}
		<UndoRedo needs="designer" line={work.line} busy={work.isBusy} onmove={(to) => work.sender.goTo(to)} />
		<Button needs="designer" onclick={() => chooser.click()}>Take in a policy…</Button>
		<Button href="/api/house/policy" download>Take it out</Button>
		<Button href="/house">House</Button>
	{/snippet}
</TopBar>
<Why needs="designer" />
<Waiting sender={work.sender} />
<input
	bind:this={chooser}
	type="file"
	accept=".json"
	class="hidden"
	aria-label="A policy file"
	onchange={(event) => {
		void takeIn(event.currentTarget.files?.[0]);
		event.currentTarget.value = '';
	}}
/>

<main class="min-h-0 flex-1 overflow-y-auto px-5 py-4" aria-label="Policy">
	<p class="mb-3 max-w-5xl text-quiet">
		What the house wants of its tables: shown at each document, and before a file is taken. With the file that is taken
		out,
		<code>npx heptarch check --policy</code> holds documents against it anywhere; a must fails there.
	</p>
	{#if doubled}<p class="mb-3 rounded-lg bg-warning-wash px-4 py-2 text-warning-text">
			This policy came with several rules of one kind; here only the first of each is shown and counted.
		</p>{/if}
	<ul class="mb-6 flex max-w-5xl flex-col gap-2.5" aria-label="Rules">
		{#each POLICY_RULES as definition (definition.name)}
			<PolicyRule
				{definition}
				{policy}
				styles={data.styles}
				count={data.counted.counts[definition.name]!}
				busy={work.isBusy}
				onchange={(label, rule) =>
					change(label, (was) => ({ ...was, rules: withRule(was.rules, definition.name, rule) }))}
				onlist={() => {
					at = definition.name;
					listing = true;
				}}
				onmend={() => {
					at = definition.name;
					mending = true;
				}}
			/>
		{/each}
	</ul>
	<h2 class="mb-1 font-semibold" id="purposes">Which tables it speaks of</h2>
	<ul class="mb-6 flex max-w-5xl flex-wrap gap-x-6 gap-y-1.5" aria-labelledby="purposes">
		{#each PURPOSES as purpose (purpose)}
			<li>
				<label class="flex min-h-6 items-center gap-2"
					><input
						type="checkbox"
						class="rounded-sm text-picked"
						checked={!leavesOut(policy, purpose)}
						disabled={work.isBusy || purpose === 'layout' || refusedTo('designer') !== undefined}
						onchange={() => leaveOut(purpose)}
					/><span>{purpose} <span class="text-[12px] text-quiet">{PURPOSE_WORDS[purpose]}</span></span></label
				>
			</li>
		{/each}
	</ul>
</main>

<TablesDialog
	bind:open={listing}
	title={at
		? wantedWords({
				...(wanted ?? { rule: at, level: 'wish', ...policyRuleNamed(at)!.usual }),
				styles: []
			} as WantedRule)
		: ''}
	query={new URLSearchParams({ rule: at })}
/>
{#if wanted}
	{@const isStyle = 'styles' in wanted}
	<RunDialog
		bind:open={mending}
		title={isStyle ? 'Give them a style that is wanted' : 'Put them right'}
		lead={isStyle
			? 'Every table that wears none of the styles that are wanted wears this one from then on.'
			: `${policyRuleNamed(at)?.mend?.words(wanted as never) ?? ''}, wherever it is otherwise.`}
		what={{ ...(!isStyle && { mend: at }), among: { rule: at } }}
		styles={isStyle ? styles : undefined}
	/>
{/if}
