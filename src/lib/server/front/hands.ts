import { Waiting } from './waiting.ts';

/** What a hand is asked to do: one request. */
export interface Job {
	/** Whose job it is, so that people take turns. */
	readonly person: string;
	/** What it works on, if it is said: a hand that knows it already is preferred. */
	readonly subject?: string | undefined;
	/** Whether it is expected to take long. */
	readonly isLong: boolean;
}

/** A process that works on one job at a time. */
export interface Hand {
	/** Resolves when it has ended, for whatever reason. */
	readonly ended: Promise<unknown>;
	/** Whether it should make room for a fresh one rather than take another job. */
	isSpent(): boolean;
	end(): void;
}

export interface HandLimits {
	/** Hands that are kept, and those that there may be while many wait. */
	readonly least: number;
	readonly most: number;
	/** A job that took so long is a long one, and is not what others wait for: milliseconds. */
	readonly long: number;
	/** A hand beyond the least that had nothing to do for so long ends: milliseconds. */
	readonly idle: number;
}

interface Asked extends Job {
	readonly begin: (hand: Hand) => void;
	readonly fail: (error: unknown) => void;
}
interface Seat<H> {
	readonly hand: H;
	job?: Job;
	since: number;
	/** What it worked on last, newest last. */
	readonly knows: Set<string>;
}

const SUBJECTS_KNOWN = 8;
/** One that cannot be started is tried again after so long: milliseconds. */
const AFTER_FAILURE = 1_000;

/**
 * The hands of a web process: whatever reads, resolves, lays out or writes runs in one of them, one job at a time. One hand
 * is always left to people who have none, and to jobs that are not long.
 */
export class Hands<H extends Hand> {
	private readonly seats = new Set<Seat<H>>();
	private readonly waiting = new Waiting<Asked>();
	private starting = 0;
	private closed = false;
	/** When one could not be started, the last time. */
	private failed = 0;
	private timer: ReturnType<typeof setInterval>;

	constructor(
		private readonly start: () => Promise<H>,
		private readonly limits: HandLimits
	) {
		this.timer = setInterval(() => this.settle(), Math.max(10, limits.long / 2));
		this.timer.unref();
		this.settle();
	}

	/** How many there are, how many of them work, and how many jobs wait. */
	get counts(): { readonly hands: number; readonly atWork: number; readonly waiting: number } {
		return { hands: this.seats.size, atWork: this.working().length, waiting: this.waiting.size };
	}

	/** The hands that work, each with its job. */
	working(): { readonly hand: H; readonly job: Job; readonly since: number }[] {
		return [...this.seats].flatMap(({ hand, job, since }) => (job ? [{ hand, job, since }] : []));
	}

	/** A hand for a job, when its turn comes; whoever gets it gives it back. Rejects when `signal` aborts before that. */
	take(job: Job, signal?: AbortSignal): Promise<H> {
		return new Promise((resolve, reject) => {
			if (this.closed) return reject(new Error('The server is stopping.'));
			const asked: Asked = { ...job, begin: (hand) => resolve(hand as H), fail: reject };
			signal?.addEventListener('abort', () => this.waiting.remove(asked) && reject(signal.reason), { once: true });
			this.waiting.add(asked);
			this.settle();
		});
	}

	/** Gives a hand back whose job is done. */
	give(hand: H): void {
		const seat = [...this.seats].find((one) => one.hand === hand);
		if (!seat) return;
		delete seat.job;
		seat.since = Date.now();
		if (hand.isSpent()) this.dismiss(seat);
		this.settle();
	}

	/** Ends them all; jobs that wait are refused. */
	close(): void {
		this.closed = true;
		clearInterval(this.timer);
		for (const asked of this.waiting.drain()) asked.fail(new Error('The server is stopping.'));
		for (const seat of [...this.seats]) this.dismiss(seat);
	}

	private dismiss(seat: Seat<H>): void {
		this.seats.delete(seat);
		seat.hand.end();
	}

	/** Begins what can begin, and sees to it that there are as many hands as needed. */
	private settle(): void {
		if (this.closed) return;
		for (;;) {
			const free = [...this.seats].filter(({ job }) => !job);
			if (!free.length) break;
			const working = this.working();
			const isLongNow = ({ job, since }: { job: Job; since: number }) =>
				job.isLong || Date.now() - since > this.limits.long;
			const longs = working.filter(isLongNow).length;
			const atWork = (person: string) => working.filter(({ job }) => job.person === person).length;
			const left = this.limits.most - 1;
			const asked = this.waiting.next(
				atWork,
				({ person, isLong }) => this.limits.most < 2 || (atWork(person) < left && !(isLong && longs >= left))
			);
			if (!asked) break;
			const seat = free.find(({ knows }) => asked.subject !== undefined && knows.has(asked.subject)) ?? free[0]!;
			seat.job = asked;
			seat.since = Date.now();
			if (asked.subject !== undefined) {
				seat.knows.delete(asked.subject);
				seat.knows.add(asked.subject);
				if (seat.knows.size > SUBJECTS_KNOWN) seat.knows.delete(seat.knows.values().next().value!);
			}
			asked.begin(seat.hand);
		}
		this.hire();
		this.release();
	}

	/** The least from the beginning; another one where all have been at work for long and somebody waits. */
	private hire(): void {
		const { least, most, long } = this.limits;
		const all = this.seats.size + this.starting;
		if (Date.now() - this.failed < AFTER_FAILURE) return;
		if (all >= most || this.starting || (all >= least && !this.waiting.size)) return;
		const areBusy = this.working().every(({ job, since }) => job.isLong || Date.now() - since > long);
		if (all >= least && !(areBusy && this.working().length === this.seats.size)) return;
		this.starting++;
		this.start().then(
			(hand) => {
				this.starting--;
				if (this.closed) return hand.end();
				const seat: Seat<H> = { hand, since: Date.now(), knows: new Set() };
				this.seats.add(seat);
				void hand.ended.then(() => {
					this.seats.delete(seat);
					this.settle();
				});
				this.settle();
			},
			(error) => {
				this.starting--;
				this.failed = Date.now();
				// Nobody waits for what cannot be started.
				if (!this.seats.size) for (const asked of this.waiting.drain()) asked.fail(error);
			}
		);
	}

	private release(): void {
		for (const seat of [...this.seats]) {
			if (this.seats.size <= this.limits.least) return;
			if (!seat.job && Date.now() - seat.since > this.limits.idle) this.dismiss(seat);
		}
	}
}
