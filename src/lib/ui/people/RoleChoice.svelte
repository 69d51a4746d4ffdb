<script lang="ts">
	import { ROLES, ROLE_WORDS, type Role } from '$lib/workbench/roles.ts';

	/** As what somebody, or a program, comes into the house. */
	let { role = $bindable() }: { role: Role } = $props();
</script>

<fieldset class="flex flex-col gap-2">
	<legend class="mb-1">As</legend>
	{#each ROLES as one (one)}
		<label class="flex items-baseline gap-2"
			><input type="radio" class="text-picked" name="role" value={one} bind:group={role} /><span
				><strong>{one}</strong> <span class="text-quiet">{ROLE_WORDS[one]}</span></span
			></label
		>
	{/each}
</fieldset>
