<script lang="ts">
	import { redoable, undoable, type Line } from '$lib/core/history.ts';
	import type { Role } from '$lib/workbench/roles.ts';
	import Dialog from './Dialog.svelte';
	import StepList from './StepList.svelte';
	import type { ListedStep } from './steps.ts';
	import Button from '../controls/Button.svelte';

	/** Undo and redo, each saying what it takes back or makes again, and all steps to choose from. */
	interface Props {
		line: Line<ListedStep>;
		busy?: boolean;
		/** Whether the steps are listed elsewhere on the screen. */
		isListed?: boolean;
		onmove: (to: number) => unknown;
		/** Who may go to a step. */
		needs?: Role;
	}
	let { line, busy = false, isListed = false, onmove, needs = 'author' }: Props = $props();
	const undo = $derived(undoable(line));
	const redo = $derived(redoable(line));
	let open = $state(false);
</script>

<Button
	{needs}
	disabled={undo === undefined || busy}
	title={undo === undefined ? 'Nothing to undo' : `Undo: ${undo}`}
	onclick={() => onmove(line.at - 1)}>Undo</Button
>
<Button
	{needs}
	disabled={redo === undefined || busy}
	title={redo === undefined ? 'Nothing to redo' : `Redo: ${redo}`}
	onclick={() => onmove(line.at + 1)}>Redo</Button
>
{#if !isListed}
	<Button
		{needs}
		disabled={line.steps.length < 2}
		title={line.steps.length < 2 ? 'No steps yet' : 'All steps, to go to any of them'}
		onclick={() => (open = true)}>Steps</Button
	>
	<Dialog bind:open title="Steps">
		<div class="max-h-[60vh] overflow-y-auto">
			<StepList
				{line}
				onmove={(to) => {
					open = false;
					return to === line.at || onmove(to);
				}}
			/>
		</div>
		{#snippet answers()}
			<Button onclick={() => (open = false)}>Stay here</Button>
		{/snippet}
	</Dialog>
{/if}
