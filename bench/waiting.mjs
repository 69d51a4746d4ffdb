// How long small requests wait while somebody else's large files are read: node bench/waiting.mjs [alone].
// `alone` leaves the hands out (build/index.js: everything in one process).
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'node:zlib';
import { bundle } from '../scripts/bundle.mjs';
import { at, pause, served } from './served.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const { largeFiles } = await import(await bundle(join(here, 'large-files.ts'), ['bench', 'demo', 'src']));
const files = await largeFiles();
const program = process.argv.includes('alone') ? 'build/index.js' : undefined;
await served({ program }, ([{ origin }]) => load(origin));

async function load(origin) {
	const seat = (name) => ({ cookie: `seat=${name}`, 'content-type': 'application/octet-stream' });
	const { documents: small } = await (await fetch(`${origin}/api/documents`)).json();
	const paths = ['/documents', '/api/styles', '/house', '/health/live'];
	const document = `/documents/${small.find(({ kind }) => kind === 'docx').id}`;
	// Warm: whoever comes first after a start waits for a compiler, not for somebody's file.
	for (let i = 0; i < 3; i++) for (const path of [...paths, document]) await (await fetch(origin + path)).arrayBuffer();

	const waits = { small: [], page: [] };
	let isOver = false;
	const ask = async (path, into, every, name) => {
		while (!isOver) {
			const start = performance.now();
			const response = await fetch(origin + path, { headers: seat(name) });
			await response.arrayBuffer();
			if (response.status !== 200) console.log(`${path}: ${response.status}`);
			into.push(performance.now() - start);
			await pause(every);
		}
	};
	const asking = [
		...paths.map((path, i) => ask(path, waits.small, 40, `reader-${i}`)),
		ask(document, waits.page, 400, 'reader-page')
	];
	for (const { name, bytes } of files) {
		const start = performance.now();
		const said = await fetch(`${origin}/api/documents?name=${encodeURIComponent(name)}`, {
			method: 'POST',
			body: bytes,
			headers: seat('uploader')
		});
		const answer = await said.json();
		const taken = performance.now() - start;
		let opened = '';
		if (said.status === 201) {
			const began = performance.now();
			const headers = { ...seat('uploader'), 'accept-encoding': 'identity' };
			const page = await fetch(`${origin}/documents/${answer.id}`, { headers });
			const { length } = gzipSync(Buffer.from(await page.arrayBuffer()), { level: 5 });
			opened = `, opened in ${(performance.now() - began).toFixed(0)} ms (${page.status}, ${(length / 2 ** 20).toFixed(1)} MB compressed)`;
		}
		console.log(
			`        ${name} (${(bytes.length / 2 ** 20).toFixed(0)} MB): ${said.status} in ${taken.toFixed(0)} ms${opened}${said.status === 201 ? '' : `: ${answer.error?.message}`}`
		);
	}
	isOver = true;
	await Promise.all(asking);
	for (const [what, values, bound] of [
		['small requests', waits.small, 200],
		['the page of a small document', waits.page, undefined]
	])
		console.log(
			`${bound === undefined ? '       ' : at(values, 0.99) <= bound ? 'within ' : 'OVER   '} ${what} meanwhile (${values.length}): median ${at(values, 0.5).toFixed(0)} ms, 99th percentile ${at(values, 0.99).toFixed(0)} ms${bound ? ` (at most ${bound})` : ''}, longest ${Math.max(...values).toFixed(0)} ms`
		);
}
