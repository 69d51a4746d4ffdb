import { numberIn } from '../front/limits.ts';
import { db } from '../database.ts';
import { isTooLarge } from '../http/requests.ts';
import { MAX_FILE_BYTES } from '../../formats/index.ts';
import { actAs } from '../people/acting.ts';
import { entrance } from '../people/shared.ts';
import { whoAsks } from '../people/who.ts';
import { programOf } from '../programs/tokens.ts';
import { may, whyNot } from '../../workbench/roles.ts';
import { askedHash, doOnce, type KeptAnswer } from './again.ts';
import { openApi } from './openapi.ts';
import type { Asking, Operation } from './operation.ts';
import { OPERATIONS } from './operations.ts';
import { problem, problemOf } from './problem.ts';
import { countRequest, MOST_A_MINUTE } from './rates.ts';

export const BASE = '/api/v1';
const PREFIX = 'Bearer ';
/** What an `If-Match` says (RFC 9110, 13.1.1): any version, or the one that an `ETag` named. */
const MATCH = /^(?:\*|"v(\d{1,15})")$/;

const patterns = OPERATIONS.map((operation) => {
	const names = [...operation.path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name!);
	return { operation, names, pattern: new RegExp(`^${operation.path.replace(/\{\w+\}/g, '([^/]+)')}$`) };
});

/** The operation that a request is for, with what stands in its path; the methods that there are where it is none of them. */
function find(method: string, path: string) {
	const matching = patterns.flatMap((one) => {
		const match = one.pattern.exec(path);
		return match
			? [{ ...one, params: Object.fromEntries(one.names.map((name, i) => [name, decoded(match[i + 1]!)])) }]
			: [];
	});
	// What is written out comes before what a name stands for.
	const found = matching.filter(({ operation }) => operation.method === (method === 'HEAD' ? 'GET' : method));
	return {
		found: found.sort((a, b) => a.names.length - b.names.length)[0],
		methods: matching.map((m) => m.operation.method)
	};
}
const decoded = (piece: string): string => {
	try {
		return decodeURIComponent(piece);
	} catch {
		return piece;
	}
};

/** Who asks: a program by its token, or a person at their browser. */
async function asking(headers: Headers): Promise<Asking | undefined> {
	const { door, auth } = await entrance();
	const shown = headers.get('authorization');
	if (shown !== null) return shown.startsWith(PREFIX) ? programOf(door, shown.slice(PREFIX.length).trim()) : undefined;
	const who = await whoAsks(door, auth, headers, process.env);
	return who && { id: who.person, name: who.name, house: who.house, role: who.role };
}

/** Answers a program: finds out what is asked, who asks and whether they may, and does it. Every error is a problem (RFC 9457). */
export async function dispatch(request: Request, url: URL): Promise<Response> {
	const path = url.pathname.slice(BASE.length) || '/';
	if (path === '/openapi.json' && request.method === 'GET') return Response.json(openApi());
	try {
		const { found, methods } = find(request.method, path);
		if (!methods.length)
			return problem(404, {
				code: 'not-found',
				message: `There is nothing at this address. ${BASE}/openapi.json says what there is.`
			});
		if (!found)
			return problem(
				405,
				{ code: 'method', message: 'This address does not answer to this.' },
				{ Allow: methods.join(', ') }
			);
		const who = await asking(request.headers);
		if (!who)
			return problem(
				401,
				{ code: 'sign-in', message: 'Show a token that leads in: “Authorization: Bearer …”. Nothing was changed.' },
				{ 'WWW-Authenticate': 'Bearer realm="Heptarch"' }
			);
		const { operation, params } = found;
		return await actAs({ house: who.house, person: who.id }, async () => {
			const most = numberIn(process.env, 'HEPTARCH_API_RATE', MOST_A_MINUTE);
			const rate = await countRequest(db(), who.id, most);
			const limits = {
				'RateLimit-Limit': String(most),
				'RateLimit-Remaining': String(rate.left),
				'RateLimit-Reset': String(rate.resets)
			};
			const response = rate.isOver
				? problem(
						429,
						{
							code: 'too-often',
							message: `More than ${most} requests within a minute are not taken. Try again in ${rate.resets} seconds.`
						},
						{ 'Retry-After': String(rate.resets) }
					)
				: !may(who.role, operation.needs)
					? problem(403, { code: 'role', message: whyNot(who.role, operation.needs) })
					: await perform(operation, { who, request, url, params });
			for (const [name, value] of Object.entries(limits)) response.headers.set(name, value);
			return response;
		});
	} catch (error) {
		const known = problemOf(error);
		if (known) return known;
		throw error;
	}
}

interface Asked {
	readonly who: Asking;
	readonly request: Request;
	readonly url: URL;
	readonly params: Readonly<Record<string, string>>;
}

async function perform(operation: Operation, asked: Asked): Promise<Response> {
	const { headers } = asked.request;
	let seen: number | undefined;
	if (operation.changes) {
		const match = headers.get('if-match');
		if (match === null)
			return problem(428, {
				code: 'if-match',
				message: 'Say in If-Match which version you saw, as its ETag named it, or * for any.'
			});
		const known = MATCH.exec(match.trim().replace(/^W\//, ''));
		if (!known) return problem(412, { code: 'if-match', message: `“${match}” names no version that there could be.` });
		if (known[1] !== undefined) seen = Number(known[1]);
	}
	const key = operation.makes ? headers.get('idempotency-key') : null;
	if (key === null) return respond(operation, await answered(operation, { ...asked, seen }));
	const body = await bodyOf(asked.request);
	if (!body) return problem(413, { code: 'too-large', message: 'The request is larger than what is taken.' });
	const { url, who } = asked;
	const copy = new Request(asked.request.url, { method: operation.method, headers, body });
	const path = `${url.pathname}${url.search}`;
	const { isAgain, ...answer } = await doOnce(db(), who.id, key, askedHash(operation.method, path, body), async () =>
		kept(operation, await answered(operation, { ...asked, request: copy, seen }))
	);
	const response = Response.json(answer.body, { status: answer.status, headers: answer.headers });
	if (isAgain) response.headers.set('Idempotency-Replayed', 'true');
	return response;
}

async function bodyOf(request: Request): Promise<Uint8Array<ArrayBuffer> | undefined> {
	if (Number(request.headers.get('content-length') ?? 0) > MAX_FILE_BYTES) return undefined;
	try {
		const bytes = new Uint8Array(await request.arrayBuffer());
		return bytes.length > MAX_FILE_BYTES ? undefined : bytes;
	} catch (error) {
		if (isTooLarge(error)) return undefined;
		throw error;
	}
}

const answered = (operation: Operation, call: Parameters<Operation['run']>[0]) => operation.run(call);

const kept = (
	{ gives }: Operation,
	{ body, version, location }: Awaited<ReturnType<Operation['run']>>
): KeptAnswer => ({
	status: gives.status,
	headers: {
		...(version !== undefined && { ETag: `"v${version}"` }),
		...(location !== undefined && { Location: BASE + location })
	},
	body: body ?? null
});

function respond(operation: Operation, answer: Awaited<ReturnType<Operation['run']>>): Response {
	if (answer.file) return answer.file;
	const { status, headers, body } = kept(operation, answer);
	return status === 204 ? new Response(null, { status, headers }) : Response.json(body, { status, headers });
}
