// How finding the group of a look grows with how many tables there are: node --import tsx bench/looks.ts.
import type { Portrait } from '../src/lib/core/lift/likeness.ts';
import { portraitKey } from '../src/lib/core/lift/likeness.ts';
import { Looks } from '../src/lib/core/lift/looks.ts';

const PLACES = ['header', 'header first', 'body 0', 'body 0 first', 'body 1', 'body 1 first', 'total', 'total first'];
/** A stream of numbers that is the same each time (mulberry32). */
function numbers(seed: number): () => number {
	let at = seed;
	return () => {
		at = (at + 0x6d2b79f5) | 0;
		let t = Math.imul(at ^ (at >>> 15), 1 | at);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
	};
}
const next = numbers(7);
const one = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
const hex = () =>
	`#${Math.floor(next() * 4_096)
		.toString(16)
		.padStart(3, '0')
		.toUpperCase()}000` as const;
const LINES = ['', '', 'solid 6350 #000000', 'solid 12700 #24324F', 'double 19050 #000000'];
const place = () => ({
	look: {
		fill: next() < 0.5 ? 'none' : hex(),
		ink: next() < 0.6 ? '#000000' : hex(),
		family: one(['Source Serif 4', 'Source Sans 3', 'IBM Plex Sans', 'Libre Franklin']),
		size: one([114_300, 120_650, 127_000, 133_350]),
		weight: one([400, 400, 600, 700]),
		h: one(['start', 'end'])
	},
	top: one(LINES),
	bottom: one(LINES),
	start: one(LINES)
});

/** Tables by as many hands as a house of that size has: each hand formats in its own way, and now and then a bit otherwise. */
function tablesOf(count: number): Portrait[] {
	const hands = Array.from({ length: Math.ceil(count / 40) }, () =>
		Object.fromEntries(PLACES.map((key) => [key, place()]))
	);
	return Array.from({ length: count }, () => {
		const hand = one(hands);
		const has = next() < 0.5 ? PLACES : PLACES.slice(0, 6);
		return new Map(
			has.map((key) => {
				const own = hand[key]!;
				return [key, next() < 0.12 ? { ...own, look: { ...own.look, ink: hex() } } : own];
			})
		) as unknown as Portrait;
	});
}

for (const count of [2_000, 20_000, 100_000]) {
	const tables = tablesOf(count);
	const looks = new Looks();
	const seen = new Set<string>();
	const start = performance.now();
	for (const portrait of tables) {
		// A look that is known needs no search: so it is where they are kept.
		const key = portraitKey(portrait);
		if (seen.has(key)) continue;
		seen.add(key);
		if (!looks.nearest(portrait)) looks.add(portrait);
	}
	const took = performance.now() - start;
	const { heapUsed } = process.memoryUsage();
	console.log(
		`${count} tables, ${seen.size} different looks, ${looks.size} groups: ${(took / 1_000).toFixed(1)} s, ` +
			`${((took / count) * 1_000).toFixed(0)} µs a table, ${(looks.compared / seen.size).toFixed(1)} comparisons a look ` +
			`(all pairs: ${((count * (count - 1)) / 2).toExponential(1)}; made: ${looks.compared.toExponential(1)}), ${(heapUsed / 2 ** 20).toFixed(0)} MB`
	);
}
