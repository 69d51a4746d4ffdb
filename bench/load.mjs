// Readers, uploaders, people at benches and runs at once, on two web processes with a worker each and one PostgreSQL, which is
// killed in the middle: node bench/load.mjs [seconds]. Prints latencies and memory, and ends with 1 where anything that was
// answered as done is lost or there twice.
import { readdirSync, readFileSync } from 'node:fs';
import { at, pause, served } from './served.mjs';

const SECONDS = Number(process.argv[2]) || 60;
/** What may be kept busy at once. */
const PEOPLE = { readers: 4, uploaders: 2, benches: 3, runs: 1 };
const FILE = { 'content-type': 'application/octet-stream' };
const JSON_BODY = { 'content-type': 'application/json' };

await served({ processes: 2, env: { HEPTARCH_LOST_AFTER: '5', HEPTARCH_LOG: 'error' } }, async (servers, cluster) => {
	const origins = servers.map(({ origin }) => origin);
	const times = {};
	const answers = {};
	let asked = 0;
	let isOver = false;
	/** Asks one of the two in turn; undefined where no answer came. */
	async function ask(what, path, init = {}, seat = 'somebody') {
		const start = performance.now();
		const origin = origins[asked++ % origins.length];
		try {
			const response = await fetch(origin + path, { ...init, headers: { ...init.headers, cookie: `seat=${seat}` } });
			const body = response.headers.get('content-type')?.includes('json')
				? await response.json()
				: void (await response.arrayBuffer());
			(times[what] ??= []).push(performance.now() - start);
			const key = `${what} ${response.status}`;
			answers[key] = (answers[key] ?? 0) + 1;
			return { status: response.status, body };
		} catch {
			answers[`${what} no answer`] = (answers[`${what} no answer`] ?? 0) + 1;
			return undefined;
		}
	}

	const { documents } = (await ask('a list', '/api/documents')).body;
	const paged = documents.filter(({ kind }) => kind !== 'svg');
	const styles = (await ask('a list', '/api/styles')).body;

	// Warm: whoever comes first after a start waits for processes that start.
	await Promise.all(Array.from({ length: 8 }, () => certainly(ask, 'the first', `/documents/${paged[0].id}`)));

	async function reader(n) {
		for (let i = n; !isOver; i++) {
			await ask('a list', ['/documents', '/api/documents?find=bed', '/api/runs', '/house'][i % 4], {}, `reader-${n}`);
			await ask('a document opened', `/documents/${paged[i % paged.length].id}`, {}, `reader-${n}`);
			await pause(300);
		}
	}

	/** Names of files by what was answered: kept, refused (nothing was changed), or nothing. */
	const files = { kept: new Map(), refused: [], unsure: [] };
	async function uploader(n) {
		for (let i = 0; !isOver; i++) {
			const name = `load ${n} ${i}`;
			const rows = Array.from({ length: 400 }, (_, r) => `TX-${n}-${i}-${r};Fern;${r}`).join('\n');
			const init = { method: 'POST', body: `Lot;Seed;Bed\n${rows}\n`, headers: FILE };
			const said = await ask(
				'a file added',
				`/api/documents?name=${encodeURIComponent(name)}.csv`,
				init,
				`uploader-${n}`
			);
			if (said?.status === 201) files.kept.set(name, said.body.id);
			else files[said ? 'refused' : 'unsure'].push(name);
			await pause(200);
		}
	}

	const benches = [];
	async function bench(n) {
		const row = (id, text, role = 'body') => ({ id, role, cells: [{ text }, { text }] });
		const work = {
			rows: [row(1, 'Bed', 'header:1'), row(2, ''), row(3, '')],
			columns: [{ kind: 'text' }, { kind: 'text' }],
			firstColumns: 0,
			lastColumns: 0,
			mark: '.',
			nextId: 4
		};
		const made = await ask('a table made', '/api/tables', {
			method: 'POST',
			body: JSON.stringify({ name: `bench ${n}`, work, wears: { style: styles[0].id } }),
			headers: JSON_BODY
		});
		const mine = { path: `/api/documents/${made.body.document}/tables/0/work`, kept: [], unsure: [] };
		benches.push(mine);
		let { from: after } = await certainly(ask, 'a table opened', mine.path);
		for (let i = 0; !isOver; i++) {
			const label = `edit ${n} ${i}`;
			const body = JSON.stringify({ after, label, patch: { rows: [row(2 + (i % 2), `text ${i}`)] } });
			const said = await ask('a step saved', mine.path, { method: 'POST', body, headers: JSON_BODY }, `bench-${n}`);
			if (said?.status === 201) {
				mine.kept.push(label);
				after = said.body.step;
			} else {
				// As the bench does: it looks where the table stands, and goes on from there.
				if (!said) mine.unsure.push(label);
				const now = await ask('a table opened', mine.path);
				const { from, steps, at: stands } = now?.body?.steps ? now.body : {};
				if (steps) after = stands ? steps[stands - 1].id : from;
				await pause(200);
			}
			await pause(80);
		}
	}

	const runs = [];
	async function runner() {
		for (let i = 0; !isOver; i++) {
			const body = JSON.stringify({ style: styles[i % styles.length].id, documents: paged.map(({ id }) => id) });
			const said = await ask('a run started', '/api/runs', { method: 'POST', body, headers: JSON_BODY }, 'runner');
			if (said?.status === 201) runs.push(said.body.id);
			await pause(4_000);
		}
	}

	const memory = { web: 0, hand: 0, worker: 0 };
	async function watch() {
		while (!isOver) {
			for (const [what, most] of Object.entries(largest(servers.map(({ child }) => child.pid))))
				memory[what] = Math.max(memory[what] ?? 0, most);
			await pause(500);
		}
	}

	const busy = [
		...Array.from({ length: PEOPLE.readers }, (_, n) => reader(n)),
		...Array.from({ length: PEOPLE.uploaders }, (_, n) => uploader(n)),
		...Array.from({ length: PEOPLE.benches }, (_, n) => bench(n)),
		...Array.from({ length: PEOPLE.runs }, runner),
		watch()
	];
	await pause(SECONDS * 500);
	console.log('        PostgreSQL is killed, and comes back after 2 s');
	cluster.halt();
	await pause(2_000);
	cluster.start();
	await pause(SECONDS * 500);
	isOver = true;
	await Promise.all(busy);

	let faults = 0;
	const fault = (words) => {
		faults++;
		console.log(`WRONG   ${words}`);
	};
	for (let wait = 0; wait < 120; wait++) {
		const body = await certainly(ask, 'a list', '/api/runs');
		const open = body.filter(({ id, state }) => runs.includes(id) && state === 'running');
		if (!open.length) break;
		if (wait === 119) fault(`${open.length} runs did not end`);
		await pause(500);
	}
	const there = new Map();
	for (const { id, name } of await allDocuments(ask)) there.set(name, [...(there.get(name) ?? []), id]);
	for (const [name, id] of files.kept)
		if (there.get(name)?.join() !== id) fault(`“${name}” was kept, and is there ${there.get(name)?.length ?? 0} times`);
	for (const name of files.refused) if (there.has(name)) fault(`“${name}” was refused, and is there all the same`);
	for (const { path, kept, unsure } of benches) {
		const { steps } = await certainly(ask, 'a table opened', path);
		const labels = steps.map(({ label }) => label).filter((label) => label.startsWith('edit'));
		const sure = labels.filter((label) => !unsure.includes(label));
		// The newest 200 come with the table.
		if (JSON.stringify(sure) !== JSON.stringify(kept.slice(-sure.length)) || sure.length < Math.min(kept.length, 150))
			fault(`${path}: ${kept.length} steps kept, ${sure.length} there`);
	}

	for (const [what, values] of Object.entries(times).sort())
		console.log(
			`        ${what} (${values.length}): median ${at(values, 0.5).toFixed(0)} ms, 99th percentile ${at(values, 0.99).toFixed(0)} ms, longest ${Math.max(...values).toFixed(0)} ms`
		);
	console.log(
		`        answers: ${Object.entries(answers)
			.sort()
			.map(([key, n]) => `${key}: ${n}`)
			.join(', ')}`
	);
	console.log(
		`        memory at most: ${Object.entries(memory)
			.map(([what, most]) => `${what} ${most} MB`)
			.join(', ')}`
	);
	const edits = benches.reduce((sum, { kept }) => sum + kept.length, 0);
	console.log(
		`${faults ? 'WRONG  ' : 'within '} ${files.kept.size} files, ${edits} edits, ${runs.length} runs through an outage: ${faults} lost or double`
	);
	process.exitCode = faults ? 1 : 0;
});

/** What comes once it does: after the outage, that is. */
async function certainly(ask, what, path) {
	for (let tries = 0; ; tries++) {
		const said = await ask(what, path);
		if (said?.status === 200) return said.body;
		if (tries > 40) throw new Error(`${path}: ${said?.status} ${JSON.stringify(said?.body)}`);
		await pause(500);
	}
}

/** Every document in the list, page by page. */
async function allDocuments(ask) {
	const all = [];
	for (let after = ''; after !== undefined;) {
		const { documents, next } = await certainly(ask, 'a list', `/api/documents?sort=name${after && `&after=${after}`}`);
		all.push(...documents);
		after = next ? encodeURIComponent(next) : undefined;
	}
	return all;
}

/** The largest resident memory in MB of these processes and those they started, by what they are. */
function largest(pids) {
	const parents = new Map();
	for (const pid of readdirSync('/proc').filter((name) => /^\d+$/.test(name)))
		try {
			const [, parent] = / \S (\d+)/.exec(readFileSync(`/proc/${pid}/stat`, 'utf8').replace(/^.*\)/, ''));
			parents.set(Number(pid), Number(parent));
		} catch {
			// It ended just now.
		}
	const ours = new Set(pids);
	for (let before = -1; before !== ours.size;) {
		before = ours.size;
		for (const [pid, parent] of parents) if (ours.has(parent)) ours.add(pid);
	}
	const most = {};
	for (const pid of ours)
		try {
			const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
			const what = /(web|hand|worker)\.js/.exec(command)?.[1];
			const [, kilobytes] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'));
			if (what) most[what] = Math.max(most[what] ?? 0, Math.round(Number(kilobytes) / 1024));
		} catch {
			// It ended just now.
		}
	return most;
}
