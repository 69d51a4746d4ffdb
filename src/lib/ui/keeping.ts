/** One thing that a browser keeps across a crash or a reload, under a key. A store that is full or shut keeps nothing. */
export class Keeping<T> {
	constructor(private readonly key: string) {}

	/** What is kept; undefined where nothing is, or nothing that can be read. */
	get(): T | undefined {
		try {
			const text = localStorage.getItem(this.key);
			return text ? (JSON.parse(text) as T) : undefined;
		} catch {
			return undefined;
		}
	}
	/** Keeps something in the place of what was kept; undefined forgets that. */
	set(value: T | undefined): void {
		try {
			if (value === undefined) localStorage.removeItem(this.key);
			else localStorage.setItem(this.key, JSON.stringify(value));
		} catch {
			// What is to be kept is on its way to the server all the same.
		}
	}
}
