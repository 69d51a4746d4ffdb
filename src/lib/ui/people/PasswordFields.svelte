<script lang="ts">
	/** What somebody signs in by. The password is shown while it is typed where they want that, as nobody else may be near. */
	let {
		username = $bindable(),
		password = $bindable(),
		isNew = false,
		label = 'Password'
	}: { username: string; password: string; isNew?: boolean; label?: string } = $props();
	let isShown = $state(false);
</script>

<label class="flex flex-col gap-1"
	>{isNew ? 'You sign in by this name' : 'Name'}
	<input class="field" autocomplete="username" maxlength="100" required bind:value={username} /></label
>
<label class="flex flex-col gap-1"
	>{label}
	<input
		class="field"
		type={isShown ? 'text' : 'password'}
		autocomplete={isNew ? 'new-password' : 'current-password'}
		maxlength="128"
		required
		bind:value={password}
	/>
	{#if isNew}<span class="text-[12px] text-quiet"
			>At least 12 characters; a few words that come to your mind do well.</span
		>{/if}</label
>
<label class="flex items-center gap-2 text-quiet"
	><input type="checkbox" class="rounded border-hairline text-picked" bind:checked={isShown} />Show the password</label
>
