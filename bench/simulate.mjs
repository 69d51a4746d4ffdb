// A day's worst hour of a thousand people, simulated: node bench/simulate.mjs. Arrivals by chance, service times as they were
// measured on two cores; prints how long people wait for a hand, by the number of hands.

const PEOPLE = 1_000;
const SECONDS = 3_600;
/** What people ask for: how often in an hour each, how long a hand works on it (median, 99th percentile, in seconds). */
const JOBS = [
	{ words: 'a document opened', perHour: 6, median: 0.3, high: 3 },
	{ words: 'a step saved', perHour: 20, median: 0.06, high: 0.4 },
	{ words: 'a file taken out', perHour: 1.5, median: 0.4, high: 4 },
	{ words: 'a file added', perHour: 1, median: 0.5, high: 12 }
];

/** Numbers that look like chance and are the same at each run (mulberry32). */
let seed = 2031;
function chance() {
	seed = (seed + 0x6d2b79f5) | 0;
	let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
	t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
	return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
}
const normal = () => Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());
/** Service times are long-tailed: log-normal, by their median and 99th percentile. */
const service = ({ median, high }) => median * Math.exp((Math.log(high / median) / 2.326) * normal());

const arrivals = [];
for (const job of JOBS) {
	const rate = (PEOPLE * job.perHour) / SECONDS;
	for (let at = 0; ;) {
		at += -Math.log(1 - chance()) / rate;
		if (at > SECONDS) break;
		arrivals.push({ at, takes: service(job) });
	}
}
arrivals.sort((a, b) => a.at - b.at);
const load = arrivals.reduce((sum, { takes }) => sum + takes, 0) / SECONDS;
console.log(
	`        ${PEOPLE} people ask for ${(arrivals.length / SECONDS).toFixed(1)} jobs a second, ${load.toFixed(1)} seconds of work in each second`
);
for (const hands of [2, 3, 4, 5, 6, 8]) {
	if (hands <= load) {
		console.log(`        ${hands} hands: fewer than the work, so that what waits grows without end`);
		continue;
	}
	/** When each hand is free again. */
	const free = Array(hands).fill(0);
	const waits = arrivals.map(({ at, takes }) => {
		let first = 0;
		for (let i = 1; i < hands; i++) if (free[i] < free[first]) first = i;
		const begins = Math.max(at, free[first]);
		free[first] = begins + takes;
		return begins - at;
	});
	waits.sort((a, b) => a - b);
	const part = (share) => waits[Math.floor(waits.length * share)];
	console.log(
		`        ${hands} hands: half wait ${part(0.5).toFixed(2)} s or less, 95 % ${part(0.95).toFixed(2)} s, 99 % ${part(0.99).toFixed(2)} s, longest ${waits.at(-1).toFixed(1)} s`
	);
}
