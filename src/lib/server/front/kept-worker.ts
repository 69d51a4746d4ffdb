import { fork, type ChildProcess } from 'node:child_process';
import { heapOption, Measured, type ProcessLimits } from './measured.ts';

const WATCH = 250;
/** One that ends is started again after a second, after two where that one ends soon, and so on: milliseconds. */
const AGAIN = { first: 1_000, most: 15_000 } as const;
const SOON = 10_000;

/** What a worker says of itself to whoever keeps it: a job begins, or it has none. */
export type WorkerSays = 'begin' | 'rest';

/**
 * Keeps a worker for runs at work: one whose document takes more than it may is ended, and another one comes; so it does
 * where it ends by itself. The run itself knows how often a document was tried.
 */
export function keepWorker(
	program: string,
	limits: ProcessLimits,
	env: NodeJS.ProcessEnv
): { stop(): Promise<unknown> } {
	let child: ChildProcess | undefined;
	let measured: Measured | undefined;
	let stopping = false;
	let pause: number = AGAIN.first / 2;
	const start = () => {
		if (stopping) return;
		const own = (child = fork(program, {
			env,
			execArgv: [heapOption(limits)],
			stdio: ['ignore', 'inherit', 'inherit', 'ipc']
		}));
		const meter = (measured = new Measured(own, limits));
		own.on('message', (says: WorkerSays) => (says === 'begin' ? meter.begin() : meter.rest()));
		const began = Date.now();
		own.once('exit', () => {
			pause = Date.now() - began < SOON ? Math.min(pause * 2, AGAIN.most) : AGAIN.first;
			setTimeout(start, pause).unref();
		});
	};
	start();
	const watch = setInterval(() => measured?.watch(), WATCH);
	watch.unref();
	return {
		stop() {
			stopping = true;
			clearInterval(watch);
			if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
			const ended = new Promise((resolve) => child!.once('exit', resolve));
			child.kill('SIGTERM');
			return ended;
		}
	};
}
