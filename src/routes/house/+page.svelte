<script lang="ts">
	import StoreFacts from '$lib/ui/house/StoreFacts.svelte';
	import { plural, pluralWord } from '$lib/core/words.ts';
	import { reachOf } from '$lib/workbench/reach.ts';
	import ReachDialog from '$lib/ui/stylebook/ReachDialog.svelte';
	import { onMount, tick, untrack } from 'svelte';
	import { contrast, toHex } from '$lib/core/colour.ts';
	import { InputError } from '$lib/core/errors.ts';
	import { SHIPPED, standIn } from '$lib/core/layout/fonts.ts';
	import { readTokens } from '$lib/core/share/tokens.ts';
	import { inkUses, typeRoleUses } from '$lib/core/style/edit.ts';
	import type { Style, TypeRole } from '$lib/core/style/types.ts';
	import { formatValue } from '$lib/core/values/format.ts';
	import { parseValue } from '$lib/core/values/parse.ts';
	import { parseLength, typedLength } from '$lib/core/units.ts';
	import { HouseWork } from '$lib/ui/house/house.svelte.ts';
	import PictureInks from '$lib/ui/house/PictureInks.svelte';
	import Uses from '$lib/ui/house/Uses.svelte';
	import ColourField from '$lib/ui/style-bench/fields/ColourField.svelte';
	import { notify, notifyError } from '$lib/ui/notices.svelte.ts';
	import Shortcuts from '$lib/ui/controls/Shortcuts.svelte';
	import { undoKeys } from '$lib/ui/controls/shortcuts.ts';
	import Why from '$lib/ui/people/Why.svelte';
	import Only from '$lib/ui/people/Only.svelte';
	import SafeKeeping from '$lib/ui/house/SafeKeeping.svelte';
	import SecondEyes from '$lib/ui/people/SecondEyes.svelte';
	import KeepSteps from '$lib/ui/house/KeepSteps.svelte';
	import NameHouse from '$lib/ui/people/NameHouse.svelte';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { live } from '$lib/ui/live/live.svelte.ts';
	import Waiting from '$lib/ui/shell/Waiting.svelte';
	import UndoRedo from '$lib/ui/shell/UndoRedo.svelte';
	import { LOCALES, localeWords } from '$lib/workbench/house.ts';
	import { parseNumber, type Parsed } from '$lib/ui/controls/fields.ts';
	import TypedField from '$lib/ui/controls/TypedField.svelte';
	import Button from '$lib/ui/controls/Button.svelte';

	let { data } = $props();
	const work = untrack(() => new HouseWork(data.house, data.steps));
	$effect(() => {
		work.house = data.house;
		work.steps = data.steps;
	});
	const house = $derived(work.house);
	onMount(() => void work.sender.resume(work.house.version));
	onMount(() => live.whenArrived((arrived) => void work.sender.meet(arrived)));
	let picked = $state<{ kind: 'ink' | 'role'; name: string }>();
	let chooser: HTMLInputElement;

	const INK_NAME = /^\p{L}[\p{L}\p{N} _-]*$/u;
	/** How often each style names a thing of the house, its own definitions left out. */
	function usesOf(
		name: string,
		count: (style: Style) => Map<string, number>,
		own: (style: Style) => object | undefined
	) {
		return data.styles.flatMap(({ id, definition }) => {
			const times = own(definition) && name in own(definition)! ? 0 : (count(definition).get(name) ?? 0);
			return times ? [{ id, name: definition.name, count: times }] : [];
		});
	}
	const inkUsesOf = (name: string) => usesOf(name, inkUses, ({ inks }) => inks);
	const roleUsesOf = (name: string) => usesOf(name, typeRoleUses, ({ typeRoles }) => typeRoles);
	const ink = $derived(picked?.kind === 'ink' && house.inks[picked.name] ? picked.name : undefined);
	const roleName = $derived(picked?.kind === 'role' && house.typeRoles[picked.name] ? picked.name : undefined);

	/** A name that nothing else of the house has. */
	function parseName(name: string): Parsed<string> {
		if (ink && (!INK_NAME.test(name) || name === 'none'))
			return {
				fault: 'A name begins with a letter and has letters, digits, spaces, - and _ in it; “none” is no name.'
			};
		return name in (ink ? house.inks : house.typeRoles)
			? { fault: `“${name}” is there already. To have one instead of the other, use “replace by”.` }
			: { value: name };
	}
	async function rename(name: string) {
		const from = picked!.name;
		const isDone = ink ? await work.renameInk(from, name) : await work.renameTypeRole(from, name);
		if (isDone) picked = { ...picked!, name };
	}
	/** What was made is picked, and its name has the focus. */
	async function pickMade(kind: 'ink' | 'role', name: string | undefined) {
		if (name === undefined) return;
		picked = { kind, name };
		await tick();
		document.querySelector<HTMLInputElement>('aside input[aria-label^="Name of the"]')?.select();
	}
	const addInk = async (hex: string) => pickMade('ink', await work.addInk(hex));
	function parseWeight(text: string): Parsed<number> {
		const parsed = parseNumber(text, { least: 1, most: 1000, isWhole: true });
		return 'fault' in parsed ? { fault: `${parsed.fault} 400 is regular, 700 bold.` } : parsed;
	}
	/** A length, in points where no unit is written. */
	function parseType(text: string, isSize: boolean): Parsed<string> {
		const length = typedLength(text, 'pt');
		try {
			if (parseLength(length) <= 0 && isSize) return { fault: 'A size is more than nothing.' };
			return { value: length };
		} catch (error) {
			return { fault: (error as Error).message };
		}
	}
	const PARSE_ROLE: Record<'size' | 'weight' | 'tracking', (text: string) => Parsed<string | number>> = {
		size: (text) => parseType(text, true),
		weight: parseWeight,
		tracking: (text) => parseType(text, false)
	};
	/** Sets a property of the picked type role; undefined says nothing of it. */
	function setRole(key: keyof TypeRole, value: string | number | undefined) {
		const { [key]: _, ...rest } = house.typeRoles[roleName!]!;
		void work.setTypeRole(roleName!, (value === undefined ? rest : { ...rest, [key]: value }) as TypeRole);
	}
	/** Design tokens that are about to be taken in. */
	let taking = $state.raw<{
		inks: Record<string, string>;
		typeRoles: Record<string, TypeRole>;
		lines: string[];
		left: string;
	}>();
	let isTaking = $state(false);
	const said = (thing: string | TypeRole) =>
		typeof thing === 'string' ? thing : Object.values(thing).filter(Boolean).join(' · ');
	function changedBy<T extends string | TypeRole>(
		come: Record<string, T>,
		has: Readonly<Record<string, T>>,
		what: string
	) {
		return Object.entries(come).flatMap(([name, thing]) => {
			const was = Object.hasOwn(has, name) ? has[name] : undefined;
			if (was === undefined) return [`New ${what} ${name}: ${said(thing)}`];
			return said(was) === said(thing) ? [] : [`${name}: ${said(was)} becomes ${said(thing)}`];
		});
	}
	async function takeTokens(file: File | undefined) {
		if (!file) return;
		try {
			let json: unknown;
			try {
				json = JSON.parse(await file.text());
			} catch {
				throw new InputError('tokens', `“${file.name}” is not JSON, so it is not a Design Tokens file.`);
			}
			const { inks, typeRoles, left } = readTokens(json);
			const counts = [Object.keys(inks).length, Object.keys(typeRoles).length] as const;
			if (counts[0] + counts[1] === 0)
				throw new InputError('tokens', `“${file.name}” holds no colour and no typography token.`);
			taking = {
				inks,
				typeRoles,
				lines: [...changedBy(inks, house.inks, 'ink'), ...changedBy(typeRoles, house.typeRoles, 'type role')],
				left: left ? `${plural(left, 'token')} of other types ${pluralWord(left, 'is', 'are')} left out.` : ''
			};
			isTaking = true;
		} catch (error) {
			notifyError(error);
		}
	}
	const sample = (locale: string) =>
		[
			formatValue(parseValue('-1234.5'), { kind: 'money', currency: 'EUR', decimals: 2 }, locale),
			formatValue(parseValue('2031-04-05'), { kind: 'date', date: 'medium' }, locale)
		].join(' · ');
	const roleStyle = ({ family, size, weight, case: letters, tracking }: TypeRole) =>
		`font-family:'${standIn(family ?? 'Source Serif 4')}';font-size:${size?.replace(' ', '') ?? '10pt'};font-weight:${weight ?? 400};` +
		(letters === 'upper'
			? 'text-transform:uppercase;'
			: letters === 'small-caps'
				? 'font-variant-caps:small-caps;'
				: '') +
		(tracking ? `letter-spacing:${tracking.replace(' ', '')};` : '');
</script>

<svelte:head><title>House · Heptarch</title></svelte:head>
<Shortcuts list={undoKeys((by) => work.sender.move(by))} />

<TopBar title="House">
	{#snippet facts()}
		<span class="chip">{house.name}</span>
		<span class="chip"
			>{plural(Object.keys(house.inks).length, 'ink')}, {plural(Object.keys(house.typeRoles).length, 'type role')}</span
		>
	{/snippet}
	{#snippet actions()}
		<UndoRedo needs="designer" line={work.line} busy={work.isBusy} onmove={(to) => work.sender.goTo(to)} />
		<Button needs="designer" onclick={() => chooser.click()}>Take in tokens…</Button>
		<input
			bind:this={chooser}
			type="file"
			accept=".json"
			class="hidden"
			aria-label="Design Tokens file"
			onchange={(event) => {
				void takeTokens(event.currentTarget.files?.[0]);
				event.currentTarget.value = '';
			}}
		/>
		<Button href="/api/house/tokens" download>Take out tokens</Button>
		<Button href="/house/policy">Policy…</Button>
		<Button href="/house/people">People…</Button>
		<Button needs="designer" primary disabled={work.isBusy} onclick={() => addInk('#6B6172')}>New ink</Button>
	{/snippet}
</TopBar>
<Why needs="designer" />
<Waiting sender={work.sender} />

<div class="flex min-h-0 flex-1">
	<main class="min-w-0 flex-1 overflow-y-auto px-5 py-4" aria-label="House">
		<h2 class="mb-2 font-semibold">Inks</h2>
		<ul class="mb-4 grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-3" aria-label="Inks">
			{#each Object.entries(house.inks) as [name, hex] (name)}
				{@const uses = inkUsesOf(name)}
				<li>
					<button
						type="button"
						class={[
							'card w-full overflow-hidden text-start hover:border-quiet',
							ink === name && 'border-picked! ring-1 ring-picked'
						]}
						aria-pressed={ink === name}
						onclick={() => (picked = { kind: 'ink', name })}
					>
						<span class="block h-12 border-b border-hairline" style="background:{hex}"></span>
						<span class="block px-2.5 py-1.5"
							><strong class="block truncate font-semibold">{name}</strong><span class="block text-[12px] text-quiet"
								>{hex} · {uses.length ? `${plural(uses.length, 'style')}` : 'not used'}</span
							></span
						>
					</button>
				</li>
			{/each}
		</ul>
		<Only needs="designer"><PictureInks onink={addInk} /></Only>
		<div class="mt-6 mb-2 flex items-center gap-3">
			<h2 class="font-semibold">Type roles</h2>
			<Button
				needs="designer"
				small
				class="ms-auto"
				disabled={work.isBusy}
				onclick={async () => pickMade('role', await work.addTypeRole())}>New type role</Button
			>
		</div>
		<ul class="flex flex-col gap-1.5" aria-label="Type roles">
			{#each Object.entries(house.typeRoles) as [name, role] (name)}
				<li>
					<button
						type="button"
						class={[
							'card flex w-full items-baseline gap-4 px-3 py-2 text-start hover:border-quiet',
							roleName === name && 'border-picked! ring-1 ring-picked'
						]}
						aria-pressed={roleName === name}
						onclick={() => (picked = { kind: 'role', name })}
					>
						<strong class="w-32 shrink-0 truncate font-semibold">{name}</strong>
						<span class="flex-1 truncate tabular-nums" style={roleStyle(role)}>Lily court 61 370.00</span>
						<span class="shrink-0 text-[12px] text-quiet"
							>{[role.family, role.size, role.weight].filter(Boolean).join(' · ')}</span
						>
					</button>
				</li>
			{/each}
		</ul>
		<h2 class="mt-6 mb-2 font-semibold">Figures and dates</h2>
		<label class="flex items-center gap-3"
			>Written as in
			<select
				class="field"
				aria-label="Figures and dates written as in"
				value={house.locale}
				disabled={work.isBusy || refusedTo('designer') !== undefined}
				onchange={(event) => work.setLocale(event.currentTarget.value)}
			>
				{#each LOCALES as locale (locale)}<option value={locale}>{localeWords(locale)}</option>{/each}
			</select>
			<span class="text-quiet tabular-nums">{sample(house.locale)}</span>
		</label>
		<h2 class="mt-6 mb-2 font-semibold">Name</h2>
		<NameHouse name={house.name} />
		<h2 class="mt-6 mb-2 font-semibold">Editions</h2>
		<SecondEyes asks={data.house.secondEyes} />
		<h2 class="mt-6 mb-2 font-semibold">What is kept</h2>
		<StoreFacts store={data.store} />
		<KeepSteps days={data.house.keepDays} />
		<h2 class="mt-6 mb-2 font-semibold">Programs</h2>
		<p class="mb-2 text-quiet">Programs come in by tokens, and are told what happens here.</p>
		<div class="flex gap-2">
			<Button needs="keeper" href="/house/programs">Tokens and addresses</Button>
			<Button href="/programs">What programs may ask</Button>
		</div>
		<h2 class="mt-6 mb-2 font-semibold">Safe keeping</h2>
		<SafeKeeping />
	</main>
	<aside
		class="w-[330px] shrink-0 overflow-y-auto border-s border-hairline bg-paper px-4 py-4"
		aria-label="What is picked"
	>
		<Only needs="designer">
			{#if ink}
				{@const hex = toHex(house.inks[ink]!)!}
				<label class="block text-quiet"
					>Name<TypedField
						class="mt-1 w-full font-semibold text-ink"
						label="Name of the ink"
						text={ink}
						parse={parseName}
						onset={rename}
					/></label
				>
				<p class="mt-3 mb-1 text-quiet">Colour</p>
				{#key ink}<ColourField value={hex} label="Colour of the ink" onset={(next) => work.setInk(ink, next)} />{/key}
				<p class="mt-3 text-[12px] text-quiet">
					Contrast with paper {contrast(hex, '#FFFFFF').toFixed(1)}:1, with black {contrast(hex, '#000000').toFixed(
						1
					)}:1.
				</p>
				<Uses
					what="ink"
					name={ink}
					uses={inkUsesOf(ink)}
					others={Object.keys(house.inks).filter((name) => name !== ink)}
					onremove={(instead) => work.removeInk(ink, instead)}
				/>
			{:else if roleName}
				{@const role = house.typeRoles[roleName]!}
				{#key roleName}
					<label class="block text-quiet"
						>Name<TypedField
							class="mt-1 w-full font-semibold text-ink"
							label="Name of the type role"
							text={roleName}
							parse={parseName}
							onset={rename}
						/></label
					>
					<label class="mt-3 block text-quiet"
						>Family<input
							class="field mt-1 w-full text-ink"
							list="families"
							value={role.family ?? ''}
							onchange={(event) => setRole('family', event.currentTarget.value.trim() || undefined)}
						/></label
					>
					<datalist id="families"
						>{#each SHIPPED as family (family)}<option value={family}></option>{/each}</datalist
					>
					<div class="mt-3 grid grid-cols-3 gap-2">
						{#each [['size', 'Size'], ['weight', 'Weight'], ['tracking', 'Tracking']] as const as [key, label] (key)}
							<label class="block text-quiet"
								>{label}<TypedField
									class="mt-1 w-full text-ink"
									{label}
									text={String(role[key] ?? '')}
									placeholder="–"
									parse={PARSE_ROLE[key]}
									onset={(value) => setRole(key, value)}
									onclear={() => setRole(key, undefined)}
								/></label
							>
						{/each}
					</div>
					<label class="mt-3 block text-quiet"
						>Case<select
							class="field mt-1 w-full text-ink"
							value={role.case ?? ''}
							onchange={(event) => setRole('case', event.currentTarget.value || undefined)}
						>
							<option value="">not said</option>
							{#each ['none', 'upper', 'lower', 'title', 'small-caps'] as letters (letters)}<option value={letters}
									>{letters}</option
								>{/each}
						</select></label
					>
				{/key}
				<Uses
					what="type role"
					name={roleName}
					uses={roleUsesOf(roleName)}
					others={Object.keys(house.typeRoles).filter((name) => name !== roleName)}
					onremove={(instead) => work.removeTypeRole(roleName, instead)}
				/>
			{:else}
				<p class="text-quiet">
					Inks and type roles are what styles name. Pick one to rename it, change it, see who uses it, or put another in
					its place: every style that names it follows.
				</p>
			{/if}
		</Only>
	</aside>
</div>

{#if taking}
	{@const { inks, typeRoles, lines, left } = taking}
	{@const after = { ...house, inks: { ...house.inks, ...inks }, typeRoles: { ...house.typeRoles, ...typeRoles } }}
	<ReachDialog
		bind:open={isTaking}
		title="Take these tokens in?"
		lines={[...(lines.length ? lines : ['The house has all of them already.']), ...(left ? [left] : [])]}
		reached={reachOf(data.styles, { before: house, after })}
		house={{ before: house, after }}
		does="Take them in"
		ondo={async () => {
			if (await work.takeIn(inks, typeRoles))
				notify(
					`${plural(Object.keys(inks).length, 'ink')} and ${plural(Object.keys(typeRoles).length, 'type role')} taken in.`
				);
		}}
	/>
{/if}
