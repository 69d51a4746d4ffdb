import type { ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';

const TICKS_PER_SECOND = 100;
const PAGE_BYTES = 4096;

/** Why a process was ended in the middle of a job. */
export type Excess = 'memory' | 'time';

export interface ProcessLimits {
	/** Resident memory, in bytes. */
	readonly memory: number;
	/** Computing time of one job, in seconds. */
	readonly seconds: number;
}

/** Some of what a process has in memory lies outside of the heap: files, above all. */
export const heapOption = ({ memory }: ProcessLimits): string =>
	`--max-old-space-size=${Math.round((memory / 2 ** 20) * 0.8)}`;

/** A process whose jobs may take so much and no more. */
export class Measured {
	excess: Excess | undefined;
	/** Computing time when its job began; undefined while it has none. */
	private before: number | undefined;

	constructor(
		private readonly child: ChildProcess,
		private readonly limits: ProcessLimits
	) {}

	/** A job begins: its computing time counts from now. */
	begin(): void {
		this.before = this.usage()?.seconds ?? 0;
	}
	rest(): void {
		this.before = undefined;
	}

	/** Ends it where its job takes more than it may. */
	watch(): void {
		const now = this.before === undefined ? undefined : this.usage();
		if (!now || this.excess) return;
		if (now.bytes > this.limits.memory) this.excess = 'memory';
		else if (now.seconds - this.before! > this.limits.seconds) this.excess = 'time';
		if (this.excess) this.child.kill('SIGKILL');
	}

	/** So much is kept after a job that the next one could go over the limit for it. */
	isSpent(): boolean {
		return (this.usage()?.bytes ?? 0) > this.limits.memory * 0.6;
	}

	/** Computing time and resident memory by now, as Linux counts them (proc(5), *stat*, *statm*); elsewhere unknown. */
	private usage(): { readonly seconds: number; readonly bytes: number } | undefined {
		try {
			const stat = readFileSync(`/proc/${this.child.pid}/stat`, 'latin1');
			// The name, in parentheses, may hold anything; the fields are counted behind it.
			const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
			const ticks = Number(fields[11]) + Number(fields[12]);
			const pages = Number(readFileSync(`/proc/${this.child.pid}/statm`, 'latin1').split(' ')[1]);
			return { seconds: ticks / TICKS_PER_SECOND, bytes: pages * PAGE_BYTES };
		} catch {
			return undefined;
		}
	}
}
