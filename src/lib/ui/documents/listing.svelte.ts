import type { DocumentOrder, DocumentSummary } from '$lib/server/documents/list.ts';
import type { Gives } from '$lib/server/http/contract.ts';
import { call } from '../api.ts';
import { notifyError } from '../notices.svelte.ts';

type Found = Gives<'GET /api/documents'>;
/** A change of what is looked for is asked for when it has stood so long: milliseconds. */
const PAUSE = 200;
/** A page of the list holds so many at most. */
const MOST_AT_ONCE = 999;
/** A run takes so many documents at most. */
export const MOST_TICKED = 2_000;

/** The list of documents as it is looked at: what is found, page after page, in which order, and what is ticked. */
export class Listing {
	find = $state('');
	kind = $state('');
	shelf = $state<'work' | 'archive'>('work');
	sort = $state<{ readonly key: DocumentOrder; readonly down: boolean }>({ key: 'updatedAt', down: true });
	private pages: Found = $state.raw({ documents: [], next: null, counts: NONE });
	readonly documents = $derived(this.pages.documents);
	readonly hasMore = $derived(this.pages.next !== null);
	readonly counts = $derived(this.pages.counts);
	/** Ticked ones, also such as are not listed now. */
	ticked: ReadonlyMap<string, DocumentSummary> = $state.raw(new Map());
	private asked = 0;
	private timer: ReturnType<typeof setTimeout> | undefined;

	constructor(first: Found) {
		this.pages = first;
	}

	/** Whether it is the list as the page came with it. */
	private get isPlain(): boolean {
		return !this.find.trim() && !this.kind && this.shelf === 'work' && this.sort.key === 'updatedAt' && this.sort.down;
	}
	private query(after?: string | null, most?: number): string {
		const { find, kind, shelf, sort } = this;
		return new URLSearchParams({
			find,
			sort: sort.key,
			...(kind && { kinds: kind }),
			...(shelf === 'archive' && { archived: '1' }),
			...(sort.down && { down: '1' }),
			...(after && { after }),
			...(most && { most: String(most) })
		}).toString();
	}

	/** The list as it is on the server now; `first` is its beginning in the plain order. */
	renew(first: Found): void {
		if (this.isPlain && this.pages.documents.length <= first.documents.length) this.pages = first;
		// As much of it as is there, so that nobody loses their place.
		else void this.load(Math.min(MOST_AT_ONCE, Math.max(this.pages.documents.length, first.documents.length, 1)));
	}
	/** Looks anew, after a pause in typing. */
	readonly look = (): void => {
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.load(), PAUSE);
	};
	private async load(most?: number): Promise<void> {
		const asked = ++this.asked;
		try {
			const found = await call('GET', `/api/documents?${this.query(null, most)}`);
			if (asked === this.asked) this.pages = found;
		} catch (error) {
			notifyError(error);
		}
	}
	/** The next page, at the end of those that are there. */
	readonly more = async (): Promise<void> => {
		const asked = ++this.asked;
		try {
			const { documents, next } = await call('GET', `/api/documents?${this.query(this.pages.next)}`);
			if (asked === this.asked)
				this.pages = { ...this.pages, documents: [...this.pages.documents, ...documents], next };
		} catch (error) {
			notifyError(error);
		}
	};

	tick(document: DocumentSummary): void {
		const ticked = new Map(this.ticked);
		if (!ticked.delete(document.id)) ticked.set(document.id, document);
		this.ticked = ticked;
	}
	readonly areAllTicked = $derived(this.documents.length > 0 && this.documents.every(({ id }) => this.ticked.has(id)));
	/** Ticks those that are listed, or none any more. */
	tickListed(): void {
		this.ticked = this.areAllTicked ? new Map() : new Map(this.documents.map((one) => [one.id, one]));
	}
	/** Ticks all that are found, as far as one run takes them. */
	async tickFound(): Promise<void> {
		while (this.hasMore && this.documents.length < MOST_TICKED) {
			const before = this.documents.length;
			await this.more();
			if (this.documents.length === before) return;
		}
		this.ticked = new Map(this.documents.slice(0, MOST_TICKED).map((one) => [one.id, one]));
	}
}

const NONE = { found: 0, atWork: 0, aside: 0, kinds: [] };
