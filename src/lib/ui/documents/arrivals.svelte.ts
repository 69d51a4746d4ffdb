import { call } from '../api.ts';
import { isTyping } from '../controls/shortcuts.ts';
import { notify } from '../notices.svelte.ts';

/** A file on its way in. */
class Arriving {
	state = $state<'reading' | 'in' | 'failed'>('reading');
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
	readonly failed = $derived(this.list.filter(({ state }) => state === 'failed'));
	readonly reading = $derived(this.list.filter(({ state }) => state === 'reading'));
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
		this.list = [...this.list.filter(({ state }) => state !== 'in'), ...list];
		const waiting = [...list];
		await Promise.all(
			Array.from({ length: AT_ONCE }, async () => {
				for (let next = waiting.shift(); next; next = waiting.shift()) await this.takeOne(next);
			})
		);
		const taken = list.filter(({ state }) => state === 'in');
		if (taken.length) notify(taken.length === 1 ? `“${taken[0]!.file.name}” is in.` : `${taken.length} files are in.`);
		this.list = this.list.filter(({ state }) => state !== 'in');
	}
	private async takeOne(entry: Arriving): Promise<void> {
		try {
			if (entry.file.size > MOST)
				throw new Error(
					`“${entry.file.name}” is ${Math.ceil(entry.file.size / 2 ** 20)} MB; files up to 50 MB are taken.`
				);
			const { imported } = await call('POST', `/api/documents?name=${encodeURIComponent(entry.file.name)}`, entry.file);
			entry.state = 'in';
			if (imported.length)
				notify(`“${entry.file.name}” brought ${imported.map((name) => `“${name}”`).join(', ')} to the Stylebook.`);
			await this.onIn();
		} catch (error) {
			entry.state = 'failed';
			entry.reason = (error as Error).message;
		}
	}
	putAwayFailed(): void {
		this.list = this.list.filter(({ state }) => state !== 'failed');
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
