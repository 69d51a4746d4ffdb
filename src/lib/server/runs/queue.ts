import PgBoss from 'pg-boss';
import { sql, type Kysely } from 'kysely';
import { connectAsOwner, databaseUrl, isAway, type Database } from '../database.ts';
import { sweepObjects } from '../files/files.ts';
import { objectStore, StoreError } from '../files/objects.ts';
import { sweep } from '../house/store.ts';
import { actAs } from '../people/acting.ts';
import { inEveryHouse } from '../people/houses.ts';
import { failed, sendLost, workOn, type RunJob, type Send } from './runs.ts';

const QUEUE = 'run-documents';
/** Documents that a worker takes from the queue at a time. */
const BATCH = 4;
/** How often what was taken out is freed: milliseconds. */
const SWEEP_EVERY = 3_600_000;
/** How often a document is tried whose file the store does not give, half a second apart. */
const MOST_TRIES = 20;
const WENT_WRONG = 'Something went wrong while this document was worked on; the log of the server says more.';
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Whoever wants to know when a job begins, and that there is none. */
interface JobWatch {
	readonly begin?: () => void;
	readonly rest?: () => void;
}

/** The durable queue of the runs of all houses, on the application's own PostgreSQL. */
export class Queue {
	private readonly boss: PgBoss;
	private readonly owner: Kysely<Database>;
	private timer: ReturnType<typeof setInterval> | undefined;
	private sweeping: ReturnType<typeof setInterval> | undefined;

	private constructor(
		private readonly db: Kysely<Database>,
		url: string,
		private readonly onerror: (error: Error) => void
	) {
		this.boss = new PgBoss({ connectionString: url, max: 3, schedule: false });
		// A lost connection is tried again; without a listener it would end the process.
		this.boss.on('error', onerror);
		this.owner = connectAsOwner(url);
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
	async work(watch: JobWatch = {}, lostAfter = Number(process.env.HEPTARCH_LOST_AFTER) || 60): Promise<void> {
		await this.boss.work<RunJob>(QUEUE, { batchSize: BATCH, pollingIntervalSeconds: 0.5 }, async (jobs) => {
			for (const { data: job } of jobs) {
				watch.begin?.();
				await actAs(job, () => this.workThrough(job));
				watch.rest?.();
			}
		});
		const look = () => inEveryHouse(this.owner, () => sendLost(this.db, this.send, lostAfter)).catch(() => undefined);
		this.timer = setInterval(look, Math.min(10_000, lostAfter * 1_000));
		this.timer.unref();
		await look();
		const clean = () => this.clean().catch(() => undefined);
		this.sweeping = setInterval(clean, SWEEP_EVERY);
		this.sweeping.unref();
		await clean();
	}

	private async clean(): Promise<void> {
		// What goes wrong in one house keeps no other from being swept.
		await inEveryHouse(this.owner, () => sweep(this.db).catch(this.onerror));
		const store = await objectStore();
		if (store) await sweepObjects(this.owner, store, new Date(Date.now() - SWEEP_EVERY));
	}

	/**
	 * Works on one document, through an outage of the database: the queue could not be told of a failure either. What is
	 * tried again changes nothing twice. A document that fails for any other reason is named in its run, and the others go on.
	 */
	private async workThrough(job: RunJob): Promise<void> {
		for (let tries = 0; ; tries++)
			try {
				return await workOn(this.db, job, tries > 0);
			} catch (error) {
				if (await this.answers()) {
					if (isAway(error)) continue;
					if (error instanceof StoreError && tries < MOST_TRIES) {
						await pause(500);
						continue;
					}
					this.onerror(error as Error);
					return await failed(this.db, job, WENT_WRONG);
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
		clearInterval(this.sweeping);
		await this.boss.stop({ graceful: true, timeout: 5_000 });
		await this.owner.destroy();
	}
}

let shared: Promise<Queue> | undefined;

/** The application's queue; opened when it is first needed. */
export function queue(db: Kysely<Database>, onerror?: (error: Error) => void): Promise<Queue> {
	shared ??= Queue.open(db, databaseUrl(), onerror).catch((error: unknown) => {
		shared = undefined;
		throw error;
	});
	return shared;
}
