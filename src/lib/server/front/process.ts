import { fork, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { Agent } from 'node:http';
import type { Hand } from './hands.ts';

const TICKS_PER_SECOND = 100;
const PAGE_BYTES = 4096;

/** Why a hand was ended in the middle of its job. */
export type Excess = 'memory' | 'time';

export interface ProcessLimits {
	/** Resident memory of a hand, in bytes. */
	readonly memory: number;
	/** Computing time of one job, in seconds. */
	readonly seconds: number;
}

/** A hand that is a process of its own and serves requests on a socket of its own. */
export class HandProcess implements Hand {
	readonly ended: Promise<unknown>;
	readonly agent = new Agent({ keepAlive: true, maxSockets: 1 });
	excess: Excess | undefined;
	private before = 0;

	private constructor(
		private readonly child: ChildProcess,
		readonly socket: string,
		private readonly limits: ProcessLimits
	) {
		this.ended = new Promise((resolve) => child.once('exit', resolve));
	}

	/** Starts the program of a hand; resolves once it listens. Rejects where it ends before that. */
	static start(
		program: string,
		socket: string,
		limits: ProcessLimits,
		env: Readonly<Record<string, string>>
	): Promise<HandProcess> {
		const child = fork(program, {
			env: { ...process.env, ...env, HEPTARCH_SOCKET: socket },
			// Some of what it has in memory lies outside of the heap: files, above all.
			execArgv: [`--max-old-space-size=${Math.round((limits.memory / 2 ** 20) * 0.8)}`],
			stdio: ['ignore', 'inherit', 'inherit', 'ipc']
		});
		const hand = new HandProcess(child, socket, limits);
		return new Promise((resolve, reject) => {
			child.once('message', () => resolve(hand));
			child.once('error', reject);
			child.once('exit', (code) => reject(new Error(`A hand ended (${code}) as it started.`)));
		});
	}

	/** A job begins: its computing time counts from now. */
	begin(): void {
		this.before = this.usage()?.seconds ?? 0;
	}

	/** Ends it where its job takes more than it may. */
	watch(): void {
		const now = this.usage();
		if (!now || this.excess) return;
		if (now.bytes > this.limits.memory) this.excess = 'memory';
		else if (now.seconds - this.before > this.limits.seconds) this.excess = 'time';
		if (this.excess) this.child.kill('SIGKILL');
	}

	/** So much is kept after a job that the next one could go over the limit for it. */
	isSpent(): boolean {
		return (this.usage()?.bytes ?? 0) > this.limits.memory * 0.6;
	}

	/** Lets it end in good order: what it does is over. */
	end(): void {
		this.agent.destroy();
		this.child.kill('SIGTERM');
	}

	/** Ends it at once, whatever it does. */
	kill(): void {
		this.child.kill('SIGKILL');
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
