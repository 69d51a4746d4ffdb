<script lang="ts">
	import { call } from '$lib/ui/api.ts';
	import Button from '../controls/Button.svelte';
	import FileChooser from '../controls/FileChooser.svelte';
	import { notify, notifyError } from '../notices.svelte.ts';

	/** The house is taken out as one file, or another one is brought in. */
	let chooser: FileChooser;
	let isBusy = $state(false);

	async function bringIn([file]: readonly File[]) {
		if (!file) return;
		isBusy = true;
		try {
			const { houses } = await call('POST', `/api/house/backup?name=${encodeURIComponent(file.name)}`, file);
			const [house] = houses;
			notify(`“${house!.name}” is here now, as a house of its own that you keep.`, 'done', {
				words: 'Work in it',
				run: async () => {
					await call('PUT', '/api/session', { house: house!.id });
					location.assign('/');
				}
			});
		} catch (error) {
			notifyError(error);
		} finally {
			isBusy = false;
		}
	}
</script>

<p class="mb-2 max-w-2xl text-quiet">
	Everything of this house in one zip of open formats, as it is at this moment; without passwords. What was taken out is
	brought in as a house beside this one.
</p>
<div class="flex gap-2">
	<Button needs="keeper" href="/api/house/backup" download>Take the house out</Button>
	<Button needs="keeper" disabled={isBusy} onclick={() => chooser.choose()}
		>{isBusy ? 'Bringing it in…' : 'Bring a house in…'}</Button
	>
</div>
<FileChooser bind:this={chooser} label="Backup of a house" accept=".zip" onchoose={bringIn} />
