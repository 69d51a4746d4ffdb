<script lang="ts">
	import StepList from '../shell/StepList.svelte';
	import type { TableBench } from './bench.svelte.ts';

	/** Every step of the work. */
	let { bench }: { bench: TableBench } = $props();
</script>

<section aria-label="Steps">
	<h3 class="mb-1 font-semibold">Steps</h3>
	<StepList line={bench.line} onmove={(to) => bench.goTo(to)} />
</section>
