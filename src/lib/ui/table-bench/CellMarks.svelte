<script lang="ts">
	import { workedOutBy } from '$lib/core/work/working.ts';
	import { isCovered, type Position } from '$lib/core/work/table.ts';
	import { isTouched } from '$lib/core/work/touches.ts';
	import type { DrawnRows } from '../table/rows.svelte.ts';
	import type { TableBench } from './bench.svelte.ts';

	/** Small marks over the cells that are drawn: touched, locked, worked out, wrong, found. */
	let { bench, drawn }: { bench: TableBench; drawn: DrawnRows } = $props();

	type Kind = 'touch' | 'lock' | 'worked' | 'own' | 'problem' | 'partial' | 'wrong' | 'lit' | 'covered' | 'left';
	interface Mark {
		readonly r: number;
		readonly c: number;
		readonly kind: Kind;
		readonly words: string;
	}
	const GLYPHS: Record<Kind, string> = {
		touch: '//',
		lock: '▣',
		worked: '=',
		own: '≡',
		problem: '!',
		partial: '…',
		wrong: '≠',
		lit: '',
		covered: '',
		left: '∉'
	};

	const marks = $derived.by(() => {
		const marks: Mark[] = [];
		const { work, problemAt, wrongAt, lit, marks: isMarked, reach } = bench;
		const at = (places: readonly Position[] = []) => new Set(places.map(({ r, c }) => `${r},${c}`));
		const covered = at(reach?.covers);
		const left = at(reach?.without);
		for (const r of drawn.rows)
			for (const c of drawn.columns) {
				const slot = work.rows[r]!.cells[c];
				if (!slot) continue;
				const key = `${r},${c}`;
				const mark = (kind: Kind, words: string) => marks.push({ r, c, kind, words });
				if (lit.has(key)) mark('lit', 'found');
				if (covered.has(key)) mark('covered', 'in the sum');
				if (left.has(key)) mark('left', 'left out of the sum');
				const why = problemAt.get(key);
				if (why)
					mark(
						why.isPartial ? 'partial' : 'problem',
						why.isPartial ? `${why.why[0]!.toUpperCase()}${why.why.slice(1)}.` : `No figure: ${why.why}.`
					);
				const wrong = wrongAt.get(key);
				if (wrong)
					mark('wrong', `${wrong.off ? `Off by ${wrong.off}` : 'In another measure'}: it comes to ${wrong.should}.`);
				if (!isMarked) continue;
				if (isTouched(slot)) mark('touch', 'touched');
				if (isCovered(slot)) continue;
				if (slot.lock) mark('lock', `locked: ${slot.lock}`);
				const by = workedOutBy(work, r, c);
				if (!why && by) mark(slot.formula ? 'own' : 'worked', `worked out ${by}`);
			}
		return marks;
	});
</script>

{#each marks as { r, c, kind, words } (`${r},${c},${kind}`)}
	<i class={['mark', kind]} title={words} style="grid-area:{drawn.line(r) + 1} / {c + 1} / auto / auto"
		>{GLYPHS[kind]}</i
	>
{/each}

<style>
	.mark {
		z-index: 3;
		align-self: start;
		justify-self: end;
		padding-inline: 2px;
		color: var(--color-accent);
		font-size: 9px;
		font-style: normal;
		font-weight: 700;
		line-height: 10px;
		pointer-events: auto;
	}
	.mark.lock {
		align-self: end;
		color: var(--color-quiet);
	}
	.mark.own,
	.mark.worked {
		align-self: start;
		justify-self: start;
		color: var(--color-picked);
		opacity: 0.7;
	}
	.mark.problem,
	.mark.wrong {
		align-self: center;
		justify-self: start;
		border-radius: 3px;
		background: var(--color-error);
		color: var(--color-sheet);
		font-size: 11px;
		line-height: 15px;
		padding-inline: 4px;
	}
	.mark.partial {
		align-self: start;
		justify-self: start;
		color: var(--color-warning-text);
	}
	.mark.wrong {
		background: var(--color-warning-text);
	}
	.mark.covered {
		align-self: stretch;
		justify-self: stretch;
		border-inline-start: 3px solid var(--color-accent);
		background: color-mix(in srgb, var(--color-accent) 12%, transparent);
		pointer-events: none;
	}
	.mark.left {
		align-self: stretch;
		justify-self: stretch;
		outline: 1.5px dashed var(--color-warning-text);
		outline-offset: -2px;
		color: var(--color-warning-text);
		pointer-events: none;
	}
	.mark.lit {
		align-self: stretch;
		justify-self: stretch;
		background: color-mix(in srgb, var(--color-mark) 30%, transparent);
		pointer-events: none;
	}
</style>
