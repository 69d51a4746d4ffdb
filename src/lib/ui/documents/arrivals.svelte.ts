import { sendFile } from '../api.ts';
import { pluralWord } from '$lib/core/words.ts';
import { isTyping } from '../controls/shortcuts.ts';
import { notify } from '../notices.svelte.ts';

/** A file on its way in. */
class Arriving {
	state = $state<'reading' | 'in' | 'failed' | 'stopped'>('reading');
	reason = $state('');
	readonly file: File;
	constructor(file: File) {
		this.file = file;
	}
}

/** Bytes of a file, at most. */
const MOST = 50 * 2 ** 20;
/** Files that are read at one time. */
const AT_ONCE = 3;

const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** Files that are taken into the house: some at a time; one that cannot be read says why, and the rest go on. */
export class Arrivals {
	private list: readonly Arriving[] = $state.raw([]);
	/** Those of the list that came, and were not taken, before. */
	private earlier = $state(0);
	readonly failed = $derived(this.list.filter(({ state }) => state === 'failed'));
	readonly reading = $derived(this.list.filter(({ state }) => state === 'reading'));
	/** How many of those that come together are through, and how many they are. */
	readonly through = $derived(this.list.length - this.earlier - this.reading.length);
	readonly all = $derived(this.list.length - this.earlier);
	private stopping = new AbortController();
	/** Why files were not taken, each reason once, with the files that it holds for. */
	readonly refusals = $derived.by(() => {
		const byReason = new Map<string, string[]>();
		for (const { file, reason } of this.failed) {
			const words = reason.replaceAll(`“${file.name}”`, 'The file');
			byReason.set(words, [...(byReason.get(words) ?? []), file.name]);
		}
		return [...byReason];
	});

	/** `onIn` is called after each file that is in. */
	constructor(private readonly onIn: () => unknown) {}

	async take(files: readonly File[]): Promise<void> {
		const list = files.map((file) => new Arriving(file));
		if (!this.reading.length) {
			this.stopping = new AbortController();
			this.earlier = this.list.length;
		}
		const { signal } = this.stopping;
		this.list = [...this.list, ...list];
		const waiting = [...list];
		await Promise.all(
			Array.from({ length: AT_ONCE }, async () => {
				for (let next = waiting.shift(); next; next = waiting.shift()) await this.takeOne(next, signal);
			})
		);
		const taken = list.filter(({ state }) => state === 'in');
		if (taken.length) notify(taken.length === 1 ? `“${taken[0]!.file.name}” is in.` : `${taken.length} files are in.`);
		const stopped = list.filter(({ state }) => state === 'stopped').length;
		if (stopped) notify(`${pluralWord(stopped, 'One file was', `${stopped} files were`)} not taken: it was stopped.`);
		if (!this.reading.length) this.list = this.failed;
	}
	/** Gives up what is not in yet. */
	stop(): void {
		this.stopping.abort();
	}
	private async takeOne(entry: Arriving, signal: AbortSignal): Promise<void> {
		if (signal.aborted) {
			entry.state = 'stopped';
			return;
		}
		try {
			if (entry.file.size > MOST)
				throw new Error(
					`“${entry.file.name}” is ${Math.ceil(entry.file.size / 2 ** 20)} MB; files up to 50 MB are taken.`
				);
			const { imported } = await sendFile(
				`/api/documents?name=${encodeURIComponent(entry.file.name)}`,
				entry.file,
				signal
			);
			entry.state = 'in';
			if (imported.length)
				notify(`“${entry.file.name}” brought ${imported.map((name) => `“${name}”`).join(', ')} to the Stylebook.`);
			await this.onIn();
		} catch (error) {
			entry.state = signal.aborted ? 'stopped' : 'failed';
			entry.reason = (error as Error).message;
		}
	}
	putAwayFailed(): void {
		this.list = this.list.filter(({ state }) => state !== 'failed');
		this.earlier = 0;
	}

	/** Cells copied elsewhere come in as a document of their own. */
	readonly paste = (event: ClipboardEvent): void => {
		if (isTyping(event)) return;
		const files = [...(event.clipboardData?.files ?? [])];
		const html = event.clipboardData?.getData('text/html') ?? '';
		const text = event.clipboardData?.getData('text/plain') ?? '';
		const stamp = moment.format(new Date()).replace(/[:/]/g, '.');
		if (files.length) void this.take(files);
		else if (/<table/i.test(html)) void this.take([new File([html], `Pasted ${stamp}.html`)]);
		else if (text.includes('\t')) void this.take([new File([text], `Pasted ${stamp}.tsv`)]);
		else if (text.trim()) notify('What was pasted holds no cells: copy them from a table, or as text with tabs.');
		else return;
		event.preventDefault();
	};
}
