/** Milliseconds of each of `times` runs, after `warm` runs that do not count. */
export async function timed(work: () => unknown, times: number, warm = 1): Promise<number[]> {
	for (let i = 0; i < warm; i++) await work();
	// What was left behind before is not to be cleared away in here.
	globalThis.gc?.();
	const spans: number[] = [];
	for (let i = 0; i < times; i++) {
		const start = performance.now();
		await work();
		spans.push(performance.now() - start);
	}
	return spans;
}

export const median = (values: readonly number[]): number =>
	[...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** Prints one line: what was measured, its ratio to what it is compared with, and the bound that the issue sets. */
export function report(what: string, value: number, base: number, bound: number, detail: string): void {
	const ratio = value / base;
	console.log(
		`${ratio <= bound ? 'within ' : 'OVER   '} ${what}: ratio ${ratio.toFixed(3)} (at most ${bound}); ${detail}`
	);
}
