<script lang="ts">
	import { SHIPPED } from '$lib/core/layout/fonts.ts';
	import { leafDefinition } from '$lib/core/properties/index.ts';
	import type { LeafValue } from '$lib/core/style/types.ts';
	import { valueWords } from '$lib/core/style/words.ts';
	import { DATE_FORMATS, type DateFormat } from '$lib/core/properties/number-format.ts';
	import { typedValue } from '$lib/core/properties/typed.ts';
	import { formatValue } from '$lib/core/values/format.ts';
	import { ISO_WEIGHTS } from '$lib/core/style/words.ts';
	import TypedField from '../../controls/TypedField.svelte';
	import InkField from './InkField.svelte';

	/** The control for one leaf, by what its schema allows. `value` is what holds, set here or not. */
	interface Props {
		path: string;
		label: string;
		value: LeafValue | undefined;
		isSet: boolean;
		inks: Readonly<Record<string, string>>;
		roles: readonly string[];
		/** For samples of dates. */
		locale: string;
		onset: (value: LeafValue) => void;
	}
	let { path, label, value, isSet, inks, roles, locale, onset }: Props = $props();
	const SAMPLE_DATE = { type: 'date', iso: '2031-04-05' } as const;
	const definition = $derived(leafDefinition(path)!);
	const kind = $derived(definition.editor);
	const options = $derived(((definition.schema.enum ?? []) as LeafValue[]).filter((option) => option !== null));
	const id = $props.id();

	const shownText = $derived(value === undefined ? '' : kind === 'share' ? valueWords(path, value) : String(value));
</script>

<div class={['min-w-0', !isSet && 'quiet']}>
	{#if kind === 'ink'}
		<InkField {value} {inks} {label} {onset} />
	{:else if kind === 'choice'}
		<select
			class="field w-full"
			aria-label={label}
			value={value ?? ''}
			onchange={(event) => onset(options.find((option) => String(option) === event.currentTarget.value)!)}
		>
			{#if value === undefined}<option value="">–</option>{/if}
			{#each options as option (option)}<option value={option}>{valueWords(path, option)}</option>{/each}
		</select>
	{:else if kind === 'flag'}
		<select
			class="field w-full"
			aria-label={label}
			value={value === undefined ? '' : String(value)}
			onchange={(event) => onset(event.currentTarget.value === 'true')}
		>
			{#if value === undefined}<option value="">–</option>{/if}
			<option value="true">{valueWords(path, true)}</option><option value="false">{valueWords(path, false)}</option>
		</select>
	{:else if kind === 'type role' || kind === 'date'}
		{@const names = kind === 'date' ? DATE_FORMATS : roles}
		<select
			class="field w-full"
			aria-label={label}
			value={value ?? ''}
			onchange={(event) => onset(event.currentTarget.value)}
		>
			{#if value === undefined}<option value="">–</option>{:else if !names.includes(String(value) as never)}<option
					{value}>{value}</option
				>{/if}
			{#each names as option (option)}<option value={option}
					>{kind === 'date'
						? formatValue(SAMPLE_DATE, { kind: 'date', date: option as DateFormat }, locale)
						: option}</option
				>{/each}
		</select>
	{:else}
		<TypedField
			{label}
			text={shownText}
			title={shownText}
			placeholder="–"
			list={kind === 'family' ? `${id}-list` : definition.edge?.property === 'weight' ? `${id}-list` : undefined}
			parse={(text) => typedValue(definition, text)}
			{onset}
		/>
	{/if}
	{#if kind === 'family' || definition.edge?.property === 'weight'}
		<datalist id="{id}-list"
			>{#each kind === 'family' ? SHIPPED : ISO_WEIGHTS as option (option)}<option value={option}
				></option>{/each}</datalist
		>
	{/if}
</div>

<style>
	.quiet :global(.field) {
		border-color: transparent;
		background-color: transparent;
		color: var(--color-quiet);
	}
	.quiet :global(.field:hover),
	.quiet :global(.field:focus) {
		border-color: var(--color-hairline);
		background-color: var(--color-sheet);
	}
	div:not(.quiet) > :global(.field) {
		font-weight: 600;
	}
</style>
