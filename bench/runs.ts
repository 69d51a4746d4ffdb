import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { sql } from 'kysely';
import { seasonReport } from '../demo/documents/season-report.ts';
import { connect, connectAsOwner } from '../src/lib/server/database.ts';
import { houseIds } from '../src/lib/server/people/houses.ts';
import { addDocument } from '../src/lib/server/documents/add.ts';
import { Queue } from '../src/lib/server/runs/queue.ts';
import { listRuns, startRun } from '../src/lib/server/runs/runs.ts';
import { Package } from '../src/lib/formats/package/zip.ts';

const FILES = 400;
/** A worker that has just begun spends its time on compiling itself; workers run for days. */
const WARM_FILES = 240;
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Resident memory of a process, in MB. */
const memoryOf = ({ pid }: ChildProcess): number =>
	Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024;

/** A run over 400 different files with one worker and with two, warmed up: files a second, and a worker's memory over the run. */
export async function benchRuns(url: string, worker: string): Promise<void> {
	const owner = connectAsOwner(url);
	const [house] = await houseIds(owner);
	await owner.destroy();
	const db = connect(url, house!);
	const style = (await db.selectFrom('styles').select('id').where('name', '=', 'Beacon').executeTakeFirstOrThrow()).id;
	const archive = await Package.open(await seasonReport(), 'a DOCX document');
	const main = (await archive.text('word/document.xml'))!;
	const documents: string[] = [];
	for (let i = 0; i < FILES; i++) {
		const bytes = await archive.rewrite(
			new Map([['word/document.xml', main.replace('Season report', `Season report ${i}`)]])
		);
		documents.push((await addDocument(db, `report ${i}.docx`, bytes)).id);
	}
	const queue = await Queue.open(db, url);
	const rates: number[] = [];
	for (const count of [1, 2]) {
		const workers = Array.from({ length: count }, () =>
			spawn(process.execPath, [worker], {
				env: { ...process.env, DATABASE_URL: url },
				stdio: ['ignore', 'pipe', 'ignore']
			})
		);
		await Promise.all(workers.map((one) => new Promise((resolve) => one.stdout!.once('data', resolve))));
		const memory: number[] = [];
		const runThrough = async (files: readonly string[]) => {
			const { id } = await startRun(db, { style, documents: files }, queue.send);
			for (;;) {
				await pause(250);
				memory.push(memoryOf(workers[0]!));
				const { open } = await db
					.selectFrom('run_items')
					.select(sql<number>`count(*) filter (where state != 'done')::int`.as('open'))
					.where('run_id', '=', id)
					.executeTakeFirstOrThrow();
				if (open === 0) return id;
			}
		};
		await runThrough(documents.slice(0, WARM_FILES * count));
		memory.length = 0;
		const start = performance.now();
		const id = await runThrough(documents);
		const seconds = (performance.now() - start) / 1000;
		rates.push(FILES / seconds);
		const quarter = (part: number) => {
			const piece = memory.slice(Math.floor((part * memory.length) / 4), Math.floor(((part + 1) * memory.length) / 4));
			return (piece.reduce((sum, one) => sum + one, 0) / Math.max(1, piece.length)).toFixed(0);
		};
		const found = (await listRuns(db, id))[0]!.items.reduce((sum, { differences }) => sum + differences, 0);
		console.log(
			`        run over ${FILES} files, ${count} ${count === 1 ? 'worker' : 'workers'}: ${(FILES / seconds).toFixed(1)} files/s, ${found} differences; memory of a worker by quarter of the run: ${[0, 1, 2, 3].map(quarter).join(', ')} MB`
		);
		for (const one of workers) one.kill('SIGTERM');
		await pause(500);
	}
	const gain = rates[1]! / rates[0]!;
	console.log(
		`${gain >= 1.7 ? 'within ' : 'OVER   '} two workers against one: ${gain.toFixed(2)} times (at least 1.7)`
	);
	await queue.close();
	await db.destroy();
}
