import { connect } from './lib/server/database.ts';
import { Queue } from './lib/server/runs/queue.ts';

/** npm run worker: works on documents of runs, beside the application's own worker, on this machine or another. */
const url = process.env.DATABASE_URL;
if (!url) {
	console.error('DATABASE_URL is not set: it says where the PostgreSQL of the house is.');
	process.exit(2);
}
const db = connect(url);
// The queue's library does not catch its own writes where the database goes between two of them.
process.on('unhandledRejection', (error) =>
	console.error(`The queue: ${error instanceof Error ? error.message : error}`)
);
let said = '';
const queue = await Queue.open(db, url, ({ message }) => {
	if (message !== said) console.error(`The queue: ${message}`);
	said = message;
});
await queue.work();
console.log('This worker works on runs. Ctrl+C stops it; what it has begun is finished first.');
const stop = async () => {
	await queue.close();
	await db.destroy();
	process.exit(0);
};
process.on('SIGINT', stop);
// Its web process ended, if it has one.
process.on('disconnect', stop);
process.on('SIGTERM', stop);
