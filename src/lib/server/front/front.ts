import { createServer, request as ask, type IncomingMessage, type RequestListener, type Server } from 'node:http';
import compression from 'compression';
import { PassThrough } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { passes, type Gate } from './gate.ts';
import type { Hands, Job } from './hands.ts';
import { isLight, pathOf } from './light.ts';
import type { Excess } from './measured.ts';
import type { HandProcess } from './process.ts';
import { refuse } from './refusals.ts';

export interface FrontOptions {
	/** The application, in this process. */
	readonly handler: RequestListener;
	readonly hands: Hands<HandProcess>;
	readonly gate: Gate;
}

/** What of an answer is kept here while a slow reader takes it, so that the hand can go on: bytes. */
const SPOOL = 16 * 2 ** 20;
/** A file of so many bytes is expected to take long. */
const LARGE = 2 * 2 ** 20;
/** A hand goes on so long after whoever asked went away; what can be asked for again is not worth more: milliseconds. */
const GRACE = 1_500;
const WATCH = 250;
const SEAT = /(?:^|;\s*)seat=([\w-]+)/;
const SUBJECT = /^\/(?:api\/(?:v1\/)?)?(?:documents|drawings)\/([0-9a-f-]{36})(?:\/|$)/;

const EXCESS: Record<Excess, string> = {
	memory: 'This needs more memory than one job may take, so it was ended. Nothing was changed by it.',
	time: 'This takes more computing time than one job may take, so it was ended. Nothing was changed by it.'
};
const ENDED = 'What worked on this ended unexpectedly. Nothing was changed; try again.';
const STOPPING = 'The server is being stopped. Nothing was changed; try again in a moment.';

/** The web process: it looks at every request, answers what is light, and hands on the rest. */
export function createFront({ handler, hands, gate }: FrontOptions): Server {
	/** Subjects whose last job was a long one. */
	const slow = new Set<string>();
	const watch = setInterval(() => {
		for (const { hand } of hands.working()) hand.watch();
	}, WATCH);
	watch.unref();

	const compressed = compression({ level: 5 }) as unknown as (
		...args: [...Parameters<RequestListener>, () => void]
	) => void;
	const server = createServer((request, response) => compressed(request, response, () => serve(request, response)));
	server.on('close', () => clearInterval(watch));
	return server;

	function serve(request: IncomingMessage, response: Parameters<RequestListener>[1]): void {
		const method = request.method ?? 'GET';
		const refused = passes(gate, method, request.headers);
		if (refused) return refuse(request, response, refused);
		const pathname = pathOf(request);
		if (isLight(method, pathname)) return handler(request, response);
		const subject = SUBJECT.exec(pathname)?.[1];
		const job: Job = {
			person: personOf(request),
			subject,
			isLong: Number(request.headers['content-length'] ?? 0) > LARGE || (subject !== undefined && slow.has(subject))
		};
		void handOn(request, response, job);
	}

	async function handOn(request: IncomingMessage, response: Parameters<RequestListener>[1], job: Job): Promise<void> {
		const gone = new AbortController();
		response.once('close', () => response.writableEnded || gone.abort(new Error('Nobody waits for this any more.')));
		let hand: HandProcess;
		try {
			hand = await hands.take(job, gone.signal);
		} catch {
			if (!gone.signal.aborted) refuse(request, response, { status: 503, code: 'offline', message: STOPPING });
			return;
		}
		const since = Date.now();
		hand.begin();
		try {
			await passOn(request, response, hand, gone.signal);
		} catch {
			await Promise.race([hand.ended, new Promise((resolve) => setTimeout(resolve, 100))]);
			refuse(
				request,
				response,
				hand.excess
					? { status: 422, code: `too-much-${hand.excess}`, message: EXCESS[hand.excess] }
					: { status: 503, code: 'offline', message: ENDED }
			);
		} finally {
			if (job.subject !== undefined) {
				slow.delete(job.subject);
				if (Date.now() - since > 1_000) slow.add(job.subject);
				if (slow.size > 1_000) slow.delete(slow.values().next().value!);
			}
			hand.rest();
			hands.give(hand);
		}
	}
}

/** Sends a request to a hand and its answer back; resolves when the hand has done its part. Rejects where it has not. */
function passOn(
	request: IncomingMessage,
	response: Parameters<RequestListener>[1],
	hand: HandProcess,
	gone: AbortSignal
): Promise<void> {
	return new Promise((resolve, reject) => {
		const { socket: socketPath, agent } = hand;
		const isRead = request.method === 'GET' || request.method === 'HEAD';
		const { connection: _connection, ...headers } = request.headers;
		const isFile = headers['content-type'] === 'application/octet-stream';
		const onward = ask({ socketPath, agent, method: request.method, path: request.url, headers });
		onward.once('error', reject);
		gone.addEventListener('abort', () => {
			// What changes something is brought to its end, unless it is a file, or not all of it came.
			if (isRead || isFile || !request.complete) setTimeout(() => isOver || hand.kill(), GRACE).unref();
		});
		let isOver = false;
		onward.once('response', (answer) => {
			answer.once('end', () => {
				isOver = true;
				// A file that is refused by its size is not read: the connection with its rest is given up, not used again.
				if (!onward.writableFinished) {
					request.unpipe(onward);
					request.resume();
					onward.destroy();
				}
				resolve();
			});
			answer.once('error', reject);
			answer.once('close', () => answer.complete || reject(new Error('The answer broke off.')));
			const { connection: _own, 'keep-alive': _alive, ...given } = answer.headers;
			response.writeHead(answer.statusCode ?? 502, given);
			const spool = new PassThrough({ highWaterMark: SPOOL });
			// Where whoever reads goes away, the connection to the hand goes with it.
			pipeline(answer, spool, response).catch(() => undefined);
		});
		request.pipe(onward);
		request.once('error', () => onward.destroy());
	});
}

/** Who asks, for taking turns: a program by what it shows, the browser by its cookie, others by their address. */
const personOf = (request: IncomingMessage): string =>
	request.headers.authorization ?? SEAT.exec(request.headers.cookie ?? '')?.[1] ?? request.socket.remoteAddress ?? '';
