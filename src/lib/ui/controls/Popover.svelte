<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { ClassValue } from 'svelte/elements';
	import { placedAt } from './placed.ts';
	import { keysOf } from './shortcuts.ts';

	/**
	 * What opens beside its button, inside the window, and closes with Escape, a press outside, the focus leaving it, or
	 * `close`. Escape and `close` give the focus back to the button.
	 */
	interface Props {
		button: Snippet<[]>;
		/** Name of the button, where its words do not say it. */
		label?: string;
		buttonClass: ClassValue;
		/** Name of what opens. */
		name?: string;
		class?: ClassValue;
		children: Snippet<[close: () => void]>;
	}
	let { button, label, buttonClass, name, class: inner, children }: Props = $props();
	let open = $state(false);
	let box: HTMLElement;
	const id = $props.id();

	function close() {
		open = false;
		box.querySelector('button')?.focus();
	}
	const placed = placedAt(() => box.querySelector('button'), 'bottom-end');
	const keys = keysOf([{ keys: ['Escape'], when: () => open, run: close }]);
</script>

<svelte:window onpointerdown={(event) => open && !box.contains(event.target as Node) && (open = false)} />
<div
	bind:this={box}
	onkeydown={keys}
	onfocusout={({ relatedTarget }) => open && relatedTarget && !box.contains(relatedTarget as Node) && (open = false)}
	role="presentation"
>
	<button
		type="button"
		class={buttonClass}
		aria-label={label}
		aria-expanded={open}
		aria-controls={open ? id : undefined}
		onclick={() => (open = !open)}>{@render button()}</button
	>
	{#if open}
		<div
			{id}
			role={name ? 'group' : undefined}
			aria-label={name}
			popover="manual"
			{@attach placed}
			class={[
				'inset-auto start-0 top-0 m-0 overflow-y-auto rounded-lg border border-hairline bg-sheet p-2 text-ink shadow-lg',
				inner
			]}
		>
			{@render children(close)}
		</div>
	{/if}
</div>
