/** Random files for the property tests: a seed makes the same file every time. */
export class Random {
	constructor(private seed: number) {}

	/** From 0 to 1, without 1 (mulberry32). */
	next(): number {
		this.seed = (this.seed + 0x6d2b79f5) | 0;
		let t = Math.imul(this.seed ^ (this.seed >>> 15), 1 | this.seed);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
	}
	below(n: number): number {
		return Math.floor(this.next() * n);
	}
	is(probability: number): boolean {
		return this.next() < probability;
	}
	pick<T>(all: readonly T[]): T {
		return all[this.below(all.length)]!;
	}
	/** Some text, or none. */
	maybe(probability: number, text: () => string): string {
		return this.is(probability) ? text() : '';
	}
	/** Some of these texts, in their order. */
	some(probability: number, texts: readonly (() => string)[]): string {
		return texts.map((text) => this.maybe(probability, text)).join('');
	}
}
