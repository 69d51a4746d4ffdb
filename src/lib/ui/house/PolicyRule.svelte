<script lang="ts">
	import {
		LEVELS,
		usualRule,
		wantedWords,
		type Level,
		type Policy,
		type PolicyRule,
		type WantedRule
	} from '$lib/core/policy/policy.ts';
	import { plural } from '$lib/core/words.ts';
	import { parseNumber } from '../controls/fields.ts';
	import Button from '../controls/Button.svelte';
	import Only from '$lib/ui/people/Only.svelte';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import Segmented from '../controls/Segmented.svelte';
	import TypedField from '../controls/TypedField.svelte';

	/** One thing that a house can want: how much, with what settings, and how many tables are otherwise now. */
	interface Props {
		definition: PolicyRule;
		policy: Policy;
		styles: readonly { readonly id: string; readonly name: string; readonly aside: boolean }[];
		/** How many tables are not as it wants; of a rule that is not in use, what it would find. */
		count: { readonly tables: number; readonly documents: number };
		busy: boolean;
		onchange: (label: string, next: WantedRule | undefined) => void;
		onlist: () => void;
		onmend: () => void;
	}
	let { definition, policy, styles, count, busy, onchange, onlist, onmend }: Props = $props();
	const wanted = $derived(policy.rules.find(({ rule }) => rule === definition.name));
	const shown = $derived(wanted ?? usualRule(definition, 'wish'));
	const nameOf = (id: string) => styles.find((style) => style.id === id)?.name;
	const named = $derived(
		definition.renamed
			? ({
					...shown,
					...definition.renamed(shown as never, (id) => nameOf(id) ?? 'a style that is gone')
				} as WantedRule)
			: shown
	);
	const sentence = $derived(wantedWords(named).replace(/\.$/, ''));
	/** A rule names styles, or has a least that is typed. */
	const wears = $derived('styles' in shown ? (shown.styles as readonly string[]) : undefined);
	const least = $derived('least' in shown ? Number(shown.least) : undefined);
	const bounds = $derived(
		(definition.settings?.least ?? { minimum: 0, maximum: 0 }) as { minimum: number; maximum: number }
	);
	const gone = $derived(wears?.filter((id) => !nameOf(id)) ?? []);
	const offered = $derived(styles.filter(({ id, aside }) => !aside && !wears?.includes(id)));
	/** A rule that wants one of no styles would want the impossible. */
	const isReady = $derived(!wears || wears.length > 0);
	/** What can be done about it, in styles that are here. */
	const words = $derived(
		definition.mend?.words({ ...shown, ...definition.renamed?.(shown as never, nameOf) } as never)
	);

	const set = (change: object, label: string) => onchange(label, { ...shown, ...change } as WantedRule);
	function setLevel(level: Level | 'off') {
		if (level === 'off') onchange(`“${sentence}” is not wanted`, undefined);
		else set({ level }, `“${sentence}” is a ${level}`);
	}
	function setStyles(next: readonly string[]) {
		if (next.length) set({ styles: next }, 'styles to wear');
		else onchange('no styles to wear', undefined);
	}
	/** Designers say what is wanted. */
	const isLocked = $derived(busy || refusedTo('designer') !== undefined);
</script>

<li class="card px-5 py-3.5" aria-label={sentence} data-rule={definition.name}>
	<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
		<p class="min-w-64 flex-1 font-semibold">
			{sentence}
		</p>
		<Only needs="designer">
			<Segmented
				label="How much it is wanted"
				options={[['off', 'not wanted'], ...LEVELS.map((level) => [level, level] as const)]}
				value={wanted?.level ?? 'off'}
				onchange={(level) => isReady && !busy && setLevel(level)}
			/>
		</Only>
	</div>
	<div class="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-2">
		{#if least !== undefined}
			<label class="flex items-center gap-2 text-quiet"
				>at least <TypedField
					class="w-20 text-ink"
					label="{sentence}: the least"
					text={String(least)}
					parse={(text) => parseNumber(text, { least: bounds.minimum, most: bounds.maximum })}
					onset={(value) => set({ least: value }, `“${sentence}”: ${value}`)}
					disabled={isLocked}
				/></label
			>
		{/if}
		{#if wears}
			<div class="flex w-full flex-wrap items-center gap-1.5">
				{#each wears as id (id)}
					<span class={['chip flex items-center gap-1', !nameOf(id) && 'border-error! text-error!']}
						>{nameOf(id) ?? 'a style that is gone'}<button
							type="button"
							class="-me-1 min-h-6 min-w-6"
							aria-label="Take {nameOf(id) ?? 'the style that is gone'} out"
							disabled={isLocked}
							onclick={() => setStyles(wears.filter((other) => other !== id))}>×</button
						></span
					>
				{/each}
				<select
					class="field w-52"
					aria-label="A style to wear"
					value=""
					disabled={isLocked || !offered.length}
					onchange={(event) => {
						const { value } = event.currentTarget;
						event.currentTarget.value = '';
						if (value) setStyles([...wears, value]);
					}}
				>
					<option value="">{wears.length ? 'or another style…' : 'choose a style…'}</option>
					{#each offered as { id, name } (id)}<option value={id}>{name}</option>{/each}
				</select>
			</div>
			{#if gone.length}<p class="w-full text-[12px] text-error" role="alert">
					{plural(gone.length, 'style')} of these {gone.length === 1 ? 'is' : 'are'} no longer in the Stylebook, so no table
					can wear {gone.length === 1 ? 'it' : 'them'}. Take {gone.length === 1 ? 'it' : 'them'} out, or choose another.
				</p>{/if}
		{/if}
		<p class={wanted && count.tables ? 'text-warning-text' : 'text-quiet'} aria-live="polite" data-count>
			{!isReady
				? 'Choose a style first.'
				: count.tables
					? `${plural(count.tables, 'table')} in ${plural(count.documents, 'document')} ${wanted ? '' : 'would '}${wanted ? (count.tables === 1 ? 'is' : 'are') : 'be'} otherwise`
					: wanted
						? 'Every table is so.'
						: 'Every table is so already.'}
		</p>
		{#if isReady && count.tables}
			<Button small onclick={onlist}>Which tables…</Button>
			{#if wanted && words}<Button needs="author" small disabled={busy} onclick={onmend}>{words}…</Button>
			{:else if wanted}<span class="text-[12px] text-quiet">Only a person can put that right.</span>{/if}
		{/if}
	</div>
</li>
