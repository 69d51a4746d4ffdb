import {
	error,
	json,
	redirect,
	type Handle,
	type HandleServerError,
	type RequestEvent,
	type ServerInit
} from '@sveltejs/kit';
import { pino } from 'pino';
import { randomUUID } from 'node:crypto';
import { building } from '$app/environment';
import { problem } from '$lib/server/api/problem.ts';
import { Censuses } from '$lib/server/census/keep.ts';
import { databaseUrl, db, passingWords } from '$lib/server/database.ts';
import { gateOf, passes } from '$lib/server/front/gate.ts';
import { actAs } from '$lib/server/people/acting.ts';
import { needOf } from '$lib/server/people/needs.ts';
import { entrance } from '$lib/server/people/shared.ts';
import { closeInstallation, listensOnLoopback, whoAsks } from '$lib/server/people/who.ts';
import { Deliveries } from '$lib/server/programs/deliver.ts';
import { queue } from '$lib/server/runs/queue.ts';
import { may, whyNot } from '$lib/workbench/roles.ts';
import { withNonce } from '$lib/ui/table/nonce.ts';
import { THEME_COOKIE, themeOf } from '$lib/ui/shell/theme.ts';

const SEAT_COOKIE = 'seat';
const log = pino({ level: process.env.HEPTARCH_LOG ?? 'info', base: null });

export const init: ServerInit = () => {
	if (building || !process.env.DATABASE_URL) return;
	// The queue's library does not catch its own writes where the database goes between two of them.
	process.on('unhandledRejection', complain);
	// Whoever is asked from elsewhere has a door that is shut, from the first second on.
	if (!listensOnLoopback(process.env)) void shut();
	// A web process has a worker beside it; alone, as while it is developed, the application works on runs and counts by itself.
	if (!process.env.HEPTARCH_ROLE) void workOnRuns();
};

/** Where the database does not answer yet, this is tried again. */
const AGAIN = 5_000;
let complained = '';
function complain(error: unknown): void {
	const message = error instanceof Error ? error.message : String(error);
	// An outage is told of once, not at every try.
	if (message !== complained)
		log.warn({ err: error }, 'what goes on by itself (runs, census, events) met a fault; it is tried again');
	complained = message;
}
async function shut(): Promise<void> {
	try {
		await closeInstallation((await entrance()).door);
	} catch {
		setTimeout(shut, AGAIN).unref();
	}
}
async function workOnRuns(): Promise<void> {
	try {
		const opened = await queue(db(), complain);
		const census = new Censuses(db(), databaseUrl(), complain);
		process.once('sveltekit:shutdown', () => void Promise.all([opened.close(), census.stop()]));
		await opened.work();
		census.start();
		const deliveries = new Deliveries(db(), databaseUrl(), complain);
		process.once('sveltekit:shutdown', () => void deliveries.stop());
		deliveries.start();
	} catch (error) {
		complain(error);
		setTimeout(workOnRuns, AGAIN).unref();
	}
}

const GATE = gateOf(process.env);

export const handle: Handle = async ({ event, resolve }) => {
	const { method, headers } = event.request;
	const refused = passes(GATE, method, Object.fromEntries(headers));
	let response = refused ? refusal(refused.status, refused.code, refused.message) : await admit(event);
	if (!response) {
		const { who } = event.locals;
		const answer = () => respond(event, resolve);
		response = await (who ? actAs(who, answer) : answer());
	}
	if (response.status === 500 && event.url.pathname.startsWith('/api/v1/'))
		response = problem(500, {
			code: 'internal',
			message: 'Something went wrong on the server. Try again; the log says more.'
		});
	if (response.status === 503) {
		response.headers.set('Retry-After', '5');
		log.warn({ path: event.url.pathname }, 'answered with 503');
	}
	if (response.status === 429 && !response.headers.has('Retry-After')) response.headers.set('Retry-After', '900');
	response.headers.set('X-Content-Type-Options', 'nosniff');
	response.headers.set('Cross-Origin-Resource-Policy', 'same-origin');
	response.headers.set('Referrer-Policy', 'same-origin');
	return response;
};

const refusal = (status: number, code: string, message: string) => json({ error: { message, code } }, { status });

/** Finds out who asks, and whether they may; answers where they may not. */
async function admit(event: RequestEvent): Promise<Response | undefined> {
	const { route, request, url, locals } = event;
	// What is not there is not there for anybody.
	if (route.id === null) return undefined;
	const need = needOf(route.id, request.method);
	if (need === 'nothing') return undefined;
	const isApi = route.id.startsWith('/api/');
	if (need === undefined) return refusal(405, 'method', 'This address does not answer to this.');
	try {
		const { door, auth } = await entrance();
		const who = await whoAsks(door, auth, request.headers, process.env);
		if (who) locals.who = who;
	} catch (error) {
		const passing = passingWords(error);
		if (isApi && passing !== undefined) return refusal(503, 'offline', passing);
		locals.unknown = error;
		return undefined;
	}
	if (need === 'nobody') return undefined;
	if (!locals.who) {
		if (isApi) return refusal(401, 'sign-in', 'Sign in first; nothing was changed.');
		redirect(303, `/sign-in?to=${encodeURIComponent(url.pathname + url.search)}`);
	}
	const { role } = locals.who;
	if (may(role, need)) return undefined;
	if (isApi) return refusal(403, 'role', whyNot(role, need));
	error(403, { message: whyNot(role, need), code: 'role' });
}

/** Answers who may ask, in the colours that they want. */
async function respond(event: RequestEvent, resolve: Parameters<Handle>[0]['resolve']): Promise<Response> {
	const theme = themeOf(event.cookies.get(THEME_COOKIE));
	// Tells browsers apart, so that people take turns where many ask for much.
	if (!event.cookies.get(SEAT_COOKIE))
		event.cookies.set(SEAT_COOKIE, randomUUID(), {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			secure: event.url.protocol === 'https:'
		});
	let nonce: string | undefined;
	let response = await resolve(event, {
		filterSerializedResponseHeaders: () => false,
		transformPageChunk: ({ html }) => {
			const page = withNonce(html.replace('%theme%', theme));
			nonce ??= page.nonce;
			return page.html;
		}
	});
	// A page that did not say so itself.
	if (event.locals.isPassing && response.status === 500)
		response = new Response(response.body, { status: 503, headers: response.headers });
	const policy = response.headers.get('Content-Security-Policy');
	if (policy && nonce)
		response.headers.set(
			'Content-Security-Policy',
			policy.replace("style-src-elem 'self'", `style-src-elem 'self' 'nonce-${nonce}'`)
		);
	return response;
}

/** What went wrong is logged; the person gets a sentence and nothing of the inside. */
export const handleError: HandleServerError = ({ error, event, status, message }) => {
	if (status === 404) return { message: 'There is nothing at this address.', code: 'not-found' };
	// What a request is to blame for is told to whoever sent it, and not our worry.
	if (status < 500) return { message: `This request cannot be read: ${message}.`, code: 'request' };
	const passing = passingWords(error);
	if (passing !== undefined) {
		event.locals.isPassing = true;
		log.warn({ err: error, path: event.url.pathname }, passing);
		return { message: passing, code: 'offline' };
	}
	log.error({ err: error, path: event.url.pathname }, 'unexpected error');
	return {
		message: 'Something went wrong on the server. Nothing was changed. Try again; the log says more.',
		code: 'internal'
	};
};
