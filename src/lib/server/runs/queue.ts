import PgBoss from 'pg-boss';
import { sql, type Kysely } from 'kysely';
import type { Database } from '../database.ts';
import { sendLost, workOn, type RunJob, type Send } from './runs.ts';

const QUEUE = 'run-documents';
/** Documents that a worker takes from the queue at a time. */
const BATCH = 4;
/** A document that fails so often while the database answers is left to the queue. */
const TRIES = 3;
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** The durable queue of the runs, on the application's own PostgreSQL. */
export class Queue {
	private readonly boss: PgBoss;
	private timer: ReturnType<typeof setInterval> | undefined;

	private constructor(
		private readonly db: Kysely<Database>,
		url: string,
		onerror: (error: Error) => void
	) {
		this.boss = new PgBoss({ connectionString: url, max: 3, schedule: false });
		// A lost connection is tried again; without a listener it would end the process.
		this.boss.on('error', onerror);
	}

	/** `onerror` hears of what goes wrong between queue and database; it is tried again by itself. */
	static async open(
		db: Kysely<Database>,
		url: string,
		onerror: (error: Error) => void = () => undefined
	): Promise<Queue> {
		const queue = new Queue(db, url, onerror);
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
	async work(lostAfter = Number(process.env.HEPTARCH_LOST_AFTER) || 60): Promise<void> {
		await this.boss.work<RunJob>(QUEUE, { batchSize: BATCH, pollingIntervalSeconds: 0.5 }, async (jobs) => {
			for (const { data } of jobs) await this.workThrough(data);
		});
		const look = () => sendLost(this.db, this.send, lostAfter).catch(() => undefined);
		this.timer = setInterval(look, Math.min(10_000, lostAfter * 1_000));
		this.timer.unref();
		await look();
	}

	/**
	 * Works on one document, through an outage of the database: the queue could not be told of a failure either. What is
	 * tried again changes nothing twice.
	 */
	private async workThrough(job: RunJob): Promise<void> {
		for (let tries = 1; ; tries++)
			try {
				return await workOn(this.db, job);
			} catch (error) {
				if (await this.answers()) {
					if (tries >= TRIES) throw error;
				} else while (!(await this.answers())) await pause(500);
			}
	}
	private answers(): Promise<boolean> {
		return sql`select 1`.execute(this.db).then(
			() => true,
			() => false
		);
	}

	async close(): Promise<void> {
		clearInterval(this.timer);
		await this.boss.stop({ graceful: true, timeout: 5_000 });
	}
}

let shared: Promise<Queue> | undefined;

/** The application's queue; opened when it is first needed. */
export function queue(db: Kysely<Database>, onerror?: (error: Error) => void): Promise<Queue> {
	const url = process.env.DATABASE_URL;
	if (!url) throw new Error('DATABASE_URL is not set: start Heptarch with npm start.');
	shared ??= Queue.open(db, url, onerror).catch((error: unknown) => {
		shared = undefined;
		throw error;
	});
	return shared;
}
