<script lang="ts">
	import { LEAF_WORDS, type SeenLeaf } from '$lib/formats/read-back.ts';
	import { type LeafAccount } from '$lib/formats/tally.ts';

	/** What became of each leaf of some tables, as one sheet: settings, by the way in which they travel. */
	let { accounts }: { accounts: readonly (readonly LeafAccount[])[] } = $props();
	const number = new Intl.NumberFormat('en-GB');
	const WAYS = [
		['living', 'in the living style'],
		['direct', 'carried directly'],
		['lost', 'not sayable'],
		['differs', 'reads otherwise']
	] as const;
	const rows = $derived.by(() => {
		const sums = new Map<SeenLeaf, Record<(typeof WAYS)[number][0], number>>();
		for (const { leaf, living, direct, lost, differs } of accounts.flat()) {
			const own = sums.get(leaf) ?? { living: 0, direct: 0, lost: 0, differs: 0 };
			sums.set(leaf, {
				living: own.living + living,
				direct: own.direct + direct,
				lost: own.lost + lost,
				differs: own.differs + differs
			});
		}
		return (Object.keys(LEAF_WORDS) as SeenLeaf[]).flatMap((leaf) => {
			const own = sums.get(leaf);
			return own ? [{ leaf, ...own }] : [];
		});
	});
</script>

<table class="w-full" data-read-back>
	<thead class="sticky top-0 bg-sheet text-quiet">
		<tr class="border-b border-hairline">
			<th class="py-1.5 text-start font-medium">Leaf</th>
			{#each WAYS as [way, words] (way)}<th class="ps-3 py-1.5 text-end font-medium">{words}</th>{/each}
		</tr>
	</thead>
	<tbody>
		{#each rows as row (row.leaf)}
			<tr class="border-b border-hairline last:border-0">
				<td class="py-1">{LEAF_WORDS[row.leaf]}</td>
				{#each WAYS as [way] (way)}
					<td
						class={[
							'ps-3 py-1 text-end tabular-nums',
							row[way] === 0 ? 'text-quiet' : way === 'differs' ? 'font-semibold text-error' : ''
						]}>{row[way] === 0 ? '·' : number.format(row[way])}</td
					>
				{/each}
			</tr>
		{/each}
	</tbody>
</table>
