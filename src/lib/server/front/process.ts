import { fork, type ChildProcess } from 'node:child_process';
import { Agent } from 'node:http';
import type { Hand } from './hands.ts';
import { heapOption, Measured, type ProcessLimits } from './measured.ts';

/** A hand that is a process of its own and serves requests on a socket of its own. */
export class HandProcess extends Measured implements Hand {
	readonly ended: Promise<unknown>;
	readonly agent = new Agent({ keepAlive: true, maxSockets: 1 });

	private constructor(
		private readonly process: ChildProcess,
		readonly socket: string,
		limits: ProcessLimits
	) {
		super(process, limits);
		this.ended = new Promise((resolve) => process.once('exit', resolve));
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
			execArgv: [heapOption(limits)],
			stdio: ['ignore', 'inherit', 'inherit', 'ipc']
		});
		const hand = new HandProcess(child, socket, limits);
		return new Promise((resolve, reject) => {
			child.once('message', () => resolve(hand));
			child.once('error', reject);
			child.once('exit', (code) => reject(new Error(`A hand ended (${code}) as it started.`)));
		});
	}

	/** Lets it end in good order: what it does is over. */
	end(): void {
		this.agent.destroy();
		this.process.kill('SIGTERM');
	}

	/** Ends it at once, whatever it does. */
	kill(): void {
		this.process.kill('SIGKILL');
	}
}
