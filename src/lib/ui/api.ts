import type { ErrorBody } from '$lib/server/http/answers.ts';
import type { Gives, RouteName, RouteOf, Takes } from '$lib/server/http/contract.ts';

/** A request that the server refused, with its sentence. */
export class RequestError extends Error {
	override readonly name = 'RequestError';
	constructor(readonly body: ErrorBody) {
		super(body.message);
	}
}

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/**
 * Calls a server route, taking and giving what the contract of the routes says. Throws RequestError with a sentence for a
 * person, also when nothing answers.
 */
export function call<M extends Method, P extends string>(
	method: M,
	path: P,
	...[body]: undefined extends Takes<RouteOf<M, P>> ? [] : [body: Takes<RouteOf<M, P>>]
): Promise<Gives<RouteOf<M, P>>> {
	return send(method, path, body);
}
/** Calls a route whose name is only known as it is called. */
export const callRoute = <R extends RouteName>(method: Method, path: string, body: unknown): Promise<Gives<R>> =>
	send(method, path, body);

/** Sends a file to be taken in; it can be given up until it is. */
export const sendFile = (path: string, file: Blob, signal: AbortSignal): Promise<Gives<'POST /api/documents'>> =>
	send('POST', path, file, signal);

/** What was said against a request, in either form: the interface's own, or that of programs (RFC 9457). */
function errorIn(value: unknown): ErrorBody | undefined {
	const { error, detail, ...more } = (value ?? {}) as Partial<ErrorBody> & { error?: ErrorBody; detail?: string };
	if (error) return error;
	const message = detail ?? more.message;
	return message === undefined ? undefined : { code: 'refused', ...more, message };
}

async function send<T>(method: Method, path: string, body: unknown, signal?: AbortSignal): Promise<T> {
	let response: Response;
	try {
		const isFile = body instanceof Blob;
		response = await fetch(path, {
			method,
			...(signal && { signal }),
			...(body !== undefined && {
				body: isFile ? body : JSON.stringify(body),
				headers: { 'Content-Type': isFile ? 'application/octet-stream' : 'application/json' }
			})
		});
	} catch {
		if (signal?.aborted) throw new RequestError({ message: 'This was stopped.', code: 'stopped' });
		throw new RequestError({
			message: 'The server does not answer. What you did is still here; try again in a moment.',
			code: 'offline'
		});
	}
	const text = await response.text();
	let value: unknown;
	try {
		value = text ? JSON.parse(text) : null;
	} catch {
		value = null;
	}
	if (response.ok) return value as T;
	const error = errorIn(value);
	throw new RequestError(
		error?.message
			? error
			: {
					message:
						response.status === 413
							? 'The file is larger than 50 MB, the most that is taken.'
							: `The server refused this (${response.status}).`,
					code: 'refused'
				}
	);
}
