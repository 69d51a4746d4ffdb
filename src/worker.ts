import { fileURLToPath } from 'node:url';
import { Censuses } from './lib/server/census/keep.ts';
import { connect } from './lib/server/database.ts';
import { Deliveries } from './lib/server/programs/deliver.ts';
import { limitsOf } from './lib/server/front/limits.ts';
import { keepWorker, type WorkerSays } from './lib/server/front/kept-worker.ts';
import { Queue } from './lib/server/runs/queue.ts';

/**
 * npm run worker: works on documents of runs keeps the census and tells addresses of events of every house, beside the worker of a web process, on this machine or
 * another. Started by
 * itself it keeps a process of its own that does the work, so that no document can bring it down.
 */
const url = process.env.DATABASE_URL;
if (!url) {
	console.error('DATABASE_URL is not set: it says where the PostgreSQL of the house is.');
	process.exit(2);
}
const tell = process.send?.bind(process);
if (tell) await work(url, tell);
else keep();

function keep(): void {
	const kept = keepWorker(fileURLToPath(import.meta.url), limitsOf(process.env), process.env);
	console.log('This worker works on runs and keeps the census. Ctrl+C stops it; what it has begun is finished first.');
	const stop = () => void kept.stop().then(() => process.exit(0));
	process.on('SIGINT', stop);
	process.on('SIGTERM', stop);
	// What it keeps does not keep it.
	setInterval(() => undefined, 60_000);
}

async function work(url: string, tell: (says: WorkerSays) => void): Promise<void> {
	const db = connect(url);
	// The queue's library does not catch its own writes where the database goes between two of them.
	process.on('unhandledRejection', (error) =>
		console.error(`The queue: ${error instanceof Error ? error.message : error}`)
	);
	let said = '';
	const queue = await Queue.open(db, url, ({ message }) => {
		if (message !== said) console.error(`The queue: ${message}`);
		said = message;
	}).catch(({ message }: Error) => {
		// Whoever keeps it starts it again.
		console.error(`The queue cannot be opened: ${message}`);
		process.exit(1);
	});
	// Two kinds of work go on side by side; it rests when both do.
	let busy = 0;
	const watch = {
		begin: () => {
			busy++;
			tell('begin');
		},
		rest: () => {
			if (--busy === 0) tell('rest');
		}
	};
	await queue.work(watch);
	const census = new Censuses(db, url, ({ message }) => console.error(`The census: ${message}`));
	census.start(watch);
	const deliveries = new Deliveries(db, url, ({ message }) => console.error(`Telling of events: ${message}`));
	deliveries.start();
	const stop = async () => {
		await census.stop();
		await deliveries.stop();
		await queue.close();
		await db.destroy();
		process.exit(0);
	};
	process.on('SIGTERM', stop);
	// Ctrl+C reaches the whole group: whoever keeps it says when it is time.
	process.on('SIGINT', () => undefined);
	// Whoever kept it is gone; what was begun is tried again.
	process.on('disconnect', () => process.exit(1));
}
