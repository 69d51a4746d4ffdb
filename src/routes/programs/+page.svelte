<script lang="ts">
	import Button from '$lib/ui/controls/Button.svelte';
	import { refusedTo } from '$lib/ui/people/who.ts';
	import TopBar from '$lib/ui/shell/TopBar.svelte';
	import { plural } from '$lib/core/words.ts';

	let { data } = $props();
	const JSON_TYPE = 'application/json';
	let picked = $state('me');
	let said = $state<Record<string, string>>({});
	let body = $state('');
	let file = $state<FileList>();
	let isBusy = $state(false);
	let answer = $state<{ status: string; headers: string; text: string }>();
	const operation = $derived(data.operations.find(({ operationId }) => operationId === picked)!);
	const groups = $derived([...new Set(data.operations.flatMap(({ tags }) => tags))]);
	const taken = $derived(operation.requestBody && Object.keys(operation.requestBody.content)[0]);
	const schemaText = (schema: object) => JSON.stringify(unfolded(schema, 2), null, 2);
	/** A schema with those that it names in their places, so deep. */
	function unfolded(schema: unknown, depth: number): unknown {
		if (typeof schema !== 'object' || schema === null) return schema;
		if (Array.isArray(schema)) return schema.map((one) => unfolded(one, depth));
		const { $ref: named, ...rest } = schema as { $ref?: string };
		if (named) {
			const name = named.split('/').at(-1)!;
			return depth ? unfolded(data.schemas[name], depth - 1) : name;
		}
		return Object.fromEntries(Object.entries(rest).map(([key, value]) => [key, unfolded(value, depth)]));
	}
	const given = $derived.by(() => {
		const [found] = Object.values(operation.responses) as { content?: Record<string, { schema: object }> }[];
		const [type, content] = Object.entries(found?.content ?? {})[0] ?? [];
		return type === JSON_TYPE ? schemaText(content!.schema) : type ? 'a file' : 'nothing';
	});

	function pick(id: string) {
		picked = id;
		said = {};
		body = '';
		answer = undefined;
	}
	async function ask() {
		isBusy = true;
		answer = undefined;
		const { method, parameters } = operation;
		let path = operation.path;
		const query = new URLSearchParams();
		const headers: Record<string, string> = {};
		for (const { name, in: where } of parameters) {
			const value = said[name] ?? '';
			if (where === 'path') path = path.replace(`{${name}}`, encodeURIComponent(value));
			else if (value && where === 'query') query.set(name, value);
			else if (value) headers[name] = value;
		}
		if (taken) headers['Content-Type'] = taken;
		try {
			const response = await fetch(`/api/v1${path}${query.size ? `?${query}` : ''}`, {
				method,
				headers,
				...(taken && { body: taken === JSON_TYPE ? body : (file?.[0] ?? '') })
			});
			const type = response.headers.get('content-type') ?? '';
			const text = /json|text|xml/.test(type)
				? await response.text()
				: `${(await response.blob()).size} bytes of ${type}`;
			answer = {
				status: `${response.status} ${response.statusText}`,
				headers: ['etag', 'location', 'ratelimit-remaining', 'retry-after']
					.flatMap((name) => (response.headers.has(name) ? [`${name}: ${response.headers.get(name)}`] : []))
					.join('\n'),
				text: /json/.test(type) ? JSON.stringify(JSON.parse(text || 'null'), null, 2) : text
			};
		} catch {
			answer = { status: 'The server does not answer.', headers: '', text: '' };
		} finally {
			isBusy = false;
		}
	}
</script>

<svelte:head><title>What programs may ask · Heptarch</title></svelte:head>
<TopBar title="What programs may ask">
	{#snippet facts()}
		<span class="chip">{plural(data.operations.length, 'request')}</span>
	{/snippet}
	{#snippet actions()}
		{#if refusedTo('keeper') === undefined}<Button href="/house/programs">Tokens and addresses</Button>{/if}
		<Button href="/api/v1/openapi.json" target="_blank">The description (OpenAPI 3.1)</Button>
	{/snippet}
</TopBar>

<div class="flex min-h-0 flex-1">
	<nav class="w-[300px] shrink-0 overflow-y-auto border-e border-hairline bg-paper px-3 py-3" aria-label="Requests">
		{#each groups as group (group)}
			<h2 class="mt-3 mb-1 px-2 font-semibold first:mt-0">{group}</h2>
			<ul>
				{#each data.operations.filter( ({ tags }) => tags.includes(group) ) as { operationId, method, path, summary } (operationId)}
					<li>
						<button
							type="button"
							class={[
								'flex w-full items-baseline gap-2 rounded-lg px-2 py-1 text-start hover:bg-picked-wash',
								operationId === picked && 'bg-picked-wash'
							]}
							aria-pressed={operationId === picked}
							title={summary}
							onclick={() => pick(operationId)}
							><span class="w-13 shrink-0 font-mono text-[11px] text-quiet">{method}</span><span
								class="min-w-0 flex-1 font-mono text-[12px]"
								>{#each path.split(/(?=\/)/) as piece, i (i)}{piece}<wbr />{/each}</span
							></button
						>
					</li>
				{/each}
			</ul>
		{/each}
	</nav>
	<main class="min-w-0 flex-1 overflow-y-auto px-5 py-4" aria-label="The request">
		<h2 class="font-title text-[18px] font-semibold">{operation.summary}</h2>
		<p class="mt-1 font-mono text-[13px]">{operation.method} /api/v1{operation.path}</p>
		<p class="mt-1 text-quiet">{operation.description}</p>
		<form
			class="mt-4 flex max-w-3xl flex-col gap-3"
			onsubmit={(event) => {
				event.preventDefault();
				void ask();
			}}
		>
			{#each operation.parameters as { name, in: where, required, description, schema } (name)}
				<label class="grid grid-cols-[150px_1fr] items-baseline gap-x-3"
					><span class="font-mono text-[12.5px]">{name}{required ? ' *' : ''}</span>
					<span>
						{#if schema.enum}
							<select class="field" {required} bind:value={() => said[name] ?? '', (value) => (said[name] = value)}>
								<option value="">not said</option>
								{#each schema.enum as one (one)}<option value={one}>{one}</option>{/each}
							</select>
						{:else}<input
								class="field w-full"
								{required}
								bind:value={() => said[name] ?? '', (value) => (said[name] = value)}
							/>{/if}
						<span class="block text-[12px] text-quiet">{description}, in the {where}</span>
					</span></label
				>
			{/each}
			{#if taken === JSON_TYPE}
				<label
					>What is sent
					<textarea class="field mt-1 w-full font-mono text-[12.5px]" rows="7" required bind:value={body}
					></textarea></label
				>
				<details>
					<summary class="text-quiet">Its schema</summary>
					<pre
						class="mt-1 max-h-80 overflow-auto rounded-lg border border-hairline bg-paper p-3 text-[12px]"
						tabindex="-1">{schemaText(operation.requestBody!.content[taken]!.schema)}</pre>
				</details>
			{:else if taken}
				<label>The file<input class="field mt-1 w-full" type="file" required bind:files={file} /></label>
			{/if}
			<p><Button primary type="submit" disabled={isBusy}>Ask, as yourself</Button></p>
		</form>
		{#if answer}
			<section class="mt-5 max-w-3xl" aria-label="The answer" role="status">
				<h3 class="font-semibold">{answer.status}</h3>
				{#if answer.headers}<pre class="mt-1 text-[12px] text-quiet">{answer.headers}</pre>{/if}
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<pre
					class="mt-2 max-h-96 overflow-auto rounded-lg border border-hairline bg-paper p-3 text-[12px]"
					tabindex="0">{answer.text}</pre>
			</section>
		{/if}
		<details class="mt-5 max-w-3xl">
			<summary class="text-quiet">What is answered</summary>
			<pre
				class="mt-1 max-h-96 overflow-auto rounded-lg border border-hairline bg-paper p-3 text-[12px]"
				tabindex="-1">{given}</pre>
		</details>
	</main>
</div>
