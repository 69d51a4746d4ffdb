/**
 * This page, for as long as it is open: it holds a lock of this name until the browser lets go of it, so that another tab
 * can tell what is being worked on from what was left behind.
 */
const PAGE = Math.random().toString(36).slice(2);
const lockOf = (page: string) => `heptarch-page:${page}`;
let isHeld = false;
/** Browsers give locks to pages that come over HTTPS or from the machine itself; elsewhere nobody can be told apart. */
const locks = () => (typeof navigator === 'undefined' ? undefined : (navigator.locks as LockManager | undefined));

/** Milliseconds that a page which is being closed may take to let go of its lock. */
const PATIENCE = 2_000;
const isGone = async (page: string): Promise<boolean> => {
	try {
		await locks()?.request(lockOf(page), { signal: AbortSignal.timeout(PATIENCE) }, () => undefined);
		return true;
	} catch {
		return false;
	}
};

/** What one history in this browser keeps across a crash or a reload. A store that is full or shut keeps nothing. */
export class Keeping<T> {
	private readonly own: string;

	constructor(
		/** Names the history. */
		private readonly of: string
	) {
		this.own = `${of}#${PAGE}`;
	}

	/** Keeps something in the place of what was kept; undefined forgets that. */
	set(value: T | undefined): void {
		try {
			if (value === undefined) return localStorage.removeItem(this.own);
			if (!isHeld) {
				isHeld = true;
				// Never let go of: that is what says that this page is open.
				locks()?.request(lockOf(PAGE), () => new Promise(() => {}));
			}
			localStorage.setItem(this.own, JSON.stringify(value));
		} catch {
			// What is to be kept is on its way to the server all the same.
		}
	}

	/** What this page keeps of it; undefined where nothing is. */
	get(): T | undefined {
		return this.read(this.own);
	}

	/**
	 * Takes over what a page kept that is no longer open, which is forgotten there; else what this page keeps. Undefined
	 * where nothing is, or nothing that can be read.
	 */
	async adopt(): Promise<T | undefined> {
		for (const page of await this.pagesGone()) {
			const key = `${this.of}#${page}`;
			const value = this.read(key);
			localStorage.removeItem(key);
			if (value === undefined) continue;
			this.set(value);
			break;
		}
		return this.get();
	}

	private read(key: string): T | undefined {
		try {
			const text = localStorage.getItem(key);
			return text ? (JSON.parse(text) as T) : undefined;
		} catch {
			return undefined;
		}
	}
	/** Pages that kept something of this history and are no longer open. */
	private async pagesGone(): Promise<string[]> {
		const start = `${this.of}#`;
		const pages = this.keys()
			.filter((key) => key.startsWith(start) && key !== this.own)
			.map((key) => key.slice(start.length));
		const gone = await Promise.all(pages.map(isGone));
		return pages.filter((_, i) => gone[i]);
	}
	private keys(): string[] {
		try {
			return Object.keys(localStorage);
		} catch {
			return [];
		}
	}
}
