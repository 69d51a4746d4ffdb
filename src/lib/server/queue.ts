import PgBoss from 'pg-boss';
import type { Kysely } from 'kysely';
import type { Database } from './database.ts';
import { sendLost, workOn, type RunJob, type Send } from './runs.ts';

const QUEUE = 'run-documents';
/** Documents that a worker takes from the queue at a time. */
const BATCH = 4;

/** The durable queue of the runs, on the application's own PostgreSQL. */
export class Queue {
	private readonly boss: PgBoss;
	private timer: ReturnType<typeof setInterval> | undefined;

	private constructor(
		private readonly db: Kysely<Database>,
		url: string
	) {
		this.boss = new PgBoss({ connectionString: url, max: 3, schedule: false });
		// A lost connection is tried again; without a listener it would end the process.
		this.boss.on('error', () => undefined);
	}

	static async open(db: Kysely<Database>, url: string): Promise<Queue> {
		const queue = new Queue(db, url);
		await queue.boss.start();
		await queue.boss.createQueue(QUEUE);
		return queue;
	}

	readonly send: Send = async (jobs) => {
		if (jobs.length)
			await this.boss.insert(
				jobs.map((job) => ({ name: QUEUE, data: { ...job }, retryLimit: 3, expireInSeconds: 300 }))
			);
	};

	/** Works on documents of runs until the process ends; sends those again whose worker was lost. */
	async work(lostAfter = 60): Promise<void> {
		await this.boss.work<RunJob>(QUEUE, { batchSize: BATCH, pollingIntervalSeconds: 0.5 }, async (jobs) => {
			for (const { data } of jobs) await workOn(this.db, data);
		});
		const look = () => sendLost(this.db, this.send, lostAfter).catch(() => undefined);
		this.timer = setInterval(look, Math.min(10_000, lostAfter * 1_000));
		this.timer.unref();
		await look();
	}

	async close(): Promise<void> {
		clearInterval(this.timer);
		await this.boss.stop({ graceful: true, timeout: 5_000 });
	}
}

let shared: Promise<Queue> | undefined;

/** The application's queue; opened when it is first needed. */
export function queue(db: Kysely<Database>): Promise<Queue> {
	const url = process.env.DATABASE_URL;
	if (!url) throw new Error('DATABASE_URL is not set: start Heptarch with npm start.');
	shared ??= Queue.open(db, url).catch((error: unknown) => {
		shared = undefined;
		throw error;
	});
	return shared;
}
