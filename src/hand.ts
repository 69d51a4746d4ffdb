import { rmSync } from 'node:fs';
import { createServer } from 'node:http';
import type { RequestListener } from 'node:http';
import { setPriority } from 'node:os';

/** A hand of a web process: the built application on a socket, one job at a time. It ends with the process that started it. */
const socket = process.env.HEPTARCH_SOCKET!;
// Whoever asks for something small is answered first.
setPriority(5);
const { handler } = (await import(new URL('handler.js', import.meta.url).href)) as { handler: RequestListener };
const server = createServer(handler);
// The web process keeps its connection; it is not closed under a request that is on its way.
server.keepAliveTimeout = 0;
// Where it is stopped as it starts, there is no place for its socket any more.
server.once('error', () => process.exit(1));
server.listen(socket, () => (process.connected ? process.send!('listening') : process.exit(1)));
const end = () => {
	rmSync(socket, { force: true });
	process.exit(0);
};
process.on('disconnect', end);
process.on('SIGTERM', end);
// Ctrl+C reaches the whole group: the web process says when it is time.
process.on('SIGINT', () => undefined);
