<script lang="ts">
	/** Undo and redo, each saying what it takes back or makes again; undefined where there is nothing. */
	interface Props {
		undoable: string | undefined;
		redoable: string | undefined;
		busy?: boolean;
		onmove: (by: -1 | 1) => unknown;
	}
	let { undoable, redoable, busy = false, onmove }: Props = $props();
</script>

<button
	type="button"
	class="button"
	disabled={!undoable || busy}
	title={undoable ? `Undo: ${undoable}` : 'Nothing to undo'}
	onclick={() => onmove(-1)}>Undo</button
>
<button
	type="button"
	class="button"
	disabled={!redoable || busy}
	title={redoable ? `Redo: ${redoable}` : 'Nothing to redo'}
	onclick={() => onmove(1)}>Redo</button
>
