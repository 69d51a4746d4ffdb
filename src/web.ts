import { mkdtempSync, rmSync } from 'node:fs';
import type { RequestListener } from 'node:http';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createFront } from './lib/server/front/front.ts';
import { gateOf } from './lib/server/front/gate.ts';
import { Hands } from './lib/server/front/hands.ts';
import { keepWorker } from './lib/server/front/kept-worker.ts';
import { limitsOf, numberIn } from './lib/server/front/limits.ts';
import { HandProcess } from './lib/server/front/process.ts';

/**
 * The web process of an installation, with its hands and its worker for runs, as `docs/operations.md` tells. It listens on
 * HOST and PORT, stops in good order on SIGTERM, and leaves nothing running.
 */
const { env } = process;
const beside = (name: string) => new URL(name, import.meta.url);
/** Requests that are under way may take so long when it stops: milliseconds. */
const STOPS_WITHIN = 7_000;

const least = Math.max(1, numberIn(env, 'HEPTARCH_HANDS', Math.max(2, availableParallelism())));
const limits = limitsOf(env);
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
// Whether it is asked on this machine alone is also asked where this is not seen.
env.HOST ??= '127.0.0.1';
const { handler } = (await import(beside('handler.js').href)) as { handler: RequestListener };
const server = createFront({ handler, hands, gate: gateOf(env) });

const worker = numberIn(env, 'HEPTARCH_WORKERS', 1)
	? keepWorker(fileURLToPath(beside('worker.js')), limits, { ...env, HEPTARCH_CONNECTIONS: '4' })
	: undefined;

let stopping = false;
function stop(): void {
	if (stopping) return;
	stopping = true;
	const stopped = worker?.stop();
	const end = async () => {
		hands.close();
		// What the worker does is brought to its end, or tried again.
		await Promise.race([stopped, new Promise((resolve) => setTimeout(resolve, 1_000))]);
		rmSync(folder, { recursive: true, force: true });
		process.exit(0);
	};
	server.closeIdleConnections();
	server.close(() => void end());
	setTimeout(() => server.closeAllConnections(), STOPS_WITHIN).unref();
}
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
server.listen(numberIn(env, 'PORT', 4700), env.HOST);
