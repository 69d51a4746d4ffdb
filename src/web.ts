import { fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import type { RequestListener } from 'node:http';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createFront } from './lib/server/front/front.ts';
import { gateOf } from './lib/server/front/gate.ts';
import { Hands } from './lib/server/front/hands.ts';
import { HandProcess } from './lib/server/front/process.ts';

/**
 * The web process of an installation, with its hands and its worker for runs, as `docs/operations.md` tells. It listens on
 * HOST and PORT, stops in good order on SIGTERM, and leaves nothing running.
 */
const { env } = process;
const number = (name: string, otherwise: number): number => {
	const value = Number(env[name] ?? otherwise);
	if (!Number.isFinite(value) || value < 0) throw new Error(`${name} is no number: ${env[name]}`);
	return value;
};
const beside = (name: string) => new URL(name, import.meta.url);
const STOPS_WITHIN = 8_000;

const least = Math.max(1, number('HEPTARCH_HANDS', Math.max(2, availableParallelism())));
const limits = {
	memory: number('HEPTARCH_HAND_MEMORY_MB', 1_000) * 2 ** 20,
	seconds: number('HEPTARCH_JOB_SECONDS', 120)
};
const folder = mkdtempSync(join(tmpdir(), 'heptarch-hands-'));
let count = 0;
const hands = new Hands(
	() =>
		HandProcess.start(fileURLToPath(beside('hand.js')), join(folder, `${++count}`), limits, {
			HEPTARCH_ROLE: 'hand',
			HEPTARCH_CONNECTIONS: '3'
		}),
	{ least, most: Math.max(2, 2 * least), long: 400, idle: 60_000 }
);

env.HEPTARCH_ROLE = 'web';
const { handler } = (await import(beside('handler.js').href)) as { handler: RequestListener };
const server = createFront({ handler, hands, gate: gateOf(env) });

/** Works on runs, and comes back where it ends: with a run that was too much for it, say. */
let worker: ChildProcess | undefined;
let stopping = false;
function startWorker(): void {
	if (stopping) return;
	worker = fork(fileURLToPath(beside('worker.js')), {
		env: { ...env, HEPTARCH_CONNECTIONS: '4' },
		execArgv: [`--max-old-space-size=${Math.round((limits.memory / 2 ** 20) * 0.8)}`],
		stdio: ['ignore', 'ignore', 'inherit', 'ipc']
	});
	worker.once('exit', () => setTimeout(startWorker, 1_000).unref());
}
if (number('HEPTARCH_WORKERS', 1)) startWorker();

function stop(): void {
	if (stopping) return;
	stopping = true;
	const end = () => {
		hands.close();
		worker?.kill('SIGTERM');
		rmSync(folder, { recursive: true, force: true });
		// What the hands and the worker still do is over at once; the worker's part is tried again.
		setTimeout(() => process.exit(0), 500);
	};
	server.closeIdleConnections();
	server.close(end);
	setTimeout(() => server.closeAllConnections(), STOPS_WITHIN).unref();
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
server.listen(number('PORT', 4700), env.HOST ?? '127.0.0.1');
