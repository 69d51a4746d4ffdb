<script lang="ts">
	import { SHIPPED } from '$lib/core/layout/fonts.ts';
	import { InputError } from '$lib/core/errors.ts';
	import { leafDefinition } from '$lib/core/style/leaves.ts';
	import type { LeafValue } from '$lib/core/style/types.ts';
	import { valueWords } from '$lib/core/style/words.ts';
	import { DATE_FORMATS, formatValue } from '$lib/core/values/format.ts';
	import { ISO_WEIGHTS } from '$lib/core/style/words.ts';
	import { parseLength } from '$lib/core/units.ts';
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
	let fault = $state<string>();
	const schema = $derived(leafDefinition(path)!.schema as { enum?: LeafValue[]; type?: string; pattern?: string });
	const kind = $derived(
		path.endsWith('ink')
			? 'ink'
			: path === 'text.role'
				? 'role'
				: path === 'text.family'
					? 'family'
					: path === 'format.date'
						? 'date'
						: path === 'format.currency' || path === 'format.zero' || path === 'format.unit'
							? 'words'
							: path === 'fill.tint' || path === 'fill.opacity'
								? 'share'
								: schema.enum
									? 'choice'
									: schema.type === 'boolean'
										? 'flag'
										: schema.type === 'string'
											? 'length'
											: 'number'
	);
	const id = $props.id();

	function typed(text: string) {
		fault = undefined;
		if (text.trim() === '') return;
		try {
			if (kind === 'words' || kind === 'family') {
				if (path === 'format.currency' && !/^[A-Za-z]{3}$/.test(text.trim()))
					throw new InputError('currency', 'A currency is three letters, such as EUR.');
				onset(path === 'format.currency' ? text.trim().toUpperCase() : text.trim());
			} else if (kind === 'length') {
				const length = text.trim().replace(/^(-?[\d.]+)$/, '$1pt');
				const least = parseLength(length);
				if (least < 0 && path !== 'text.tracking') throw new InputError('length', 'It cannot be less than nothing.');
				onset(length);
			} else {
				const number = Number(text.replace(',', '.').replace(/\s*%$/, ''));
				if (!Number.isFinite(number)) throw new InputError('number', `“${text}” is not a number.`);
				const value = kind === 'share' ? number / 100 : number;
				if (kind === 'share' && (value < 0 || value > 1)) throw new InputError('number', 'It goes from 0 to 100 %.');
				if (path === 'text.weight' && (!Number.isInteger(value) || value < 1 || value > 1000))
					throw new InputError('number', 'Weights go from 1 to 1000; 400 is regular, 700 bold.');
				if (path === 'format.decimals' && (!Number.isInteger(value) || value < 0 || value > 20))
					throw new InputError('number', 'Decimals are a whole number from 0 to 20.');
				if (path === 'text.lineHeight' && (value <= 0 || value > 10))
					throw new InputError('number', 'A line height is a factor above 0, up to 10.');
				onset(value);
			}
		} catch (error) {
			fault = (error as Error).message;
		}
	}
	const shownText = $derived(
		value === undefined ? '' : kind === 'share' ? `${Math.round(Number(value) * 100)} %` : String(value)
	);
</script>

<div class={['min-w-0', !isSet && 'quiet']}>
	{#if kind === 'ink'}
		<InkField {value} {inks} {label} {onset} />
	{:else if kind === 'choice'}
		<select
			class="field w-full"
			aria-label={label}
			value={value ?? ''}
			onchange={(event) => onset(schema.enum!.find((option) => String(option) === event.currentTarget.value)!)}
		>
			{#if value === undefined}<option value="">–</option>{/if}
			{#each schema.enum!.filter((option) => option !== null) as option (option)}<option value={option}
					>{valueWords(path, option)}</option
				>{/each}
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
	{:else if kind === 'role' || kind === 'date'}
		{@const options = kind === 'role' ? roles : DATE_FORMATS}
		<select
			class="field w-full"
			aria-label={label}
			value={value ?? ''}
			onchange={(event) => onset(event.currentTarget.value)}
		>
			{#if value === undefined}<option value="">–</option>{:else if !options.includes(String(value) as never)}<option
					{value}>{value}</option
				>{/if}
			{#each options as option (option)}<option value={option}
					>{kind === 'date' ? formatValue(SAMPLE_DATE, { kind: 'date', date: option }, locale) : option}</option
				>{/each}
		</select>
	{:else}
		<input
			class={['field w-full', fault && 'border-error!']}
			aria-label={label}
			aria-invalid={!!fault}
			aria-describedby={fault ? id : undefined}
			value={shownText}
			placeholder="–"
			list={kind === 'family' ? `${id}-list` : path.endsWith('.weight') && kind === 'length' ? `${id}-list` : undefined}
			onchange={(event) => typed(event.currentTarget.value)}
		/>
	{/if}
	{#if kind === 'family' || (kind === 'length' && path.startsWith('lines.'))}
		<datalist id="{id}-list"
			>{#each kind === 'family' ? SHIPPED : ISO_WEIGHTS as option (option)}<option value={option}
				></option>{/each}</datalist
		>
	{/if}
	{#if fault}<p {id} class="mt-0.5 text-[12px] text-error" role="alert">{fault}</p>{/if}
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
