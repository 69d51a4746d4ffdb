import type { ErrorBody } from '$lib/server/http/answers.ts';

/** A request that the server refused, with its sentence. */
export class RequestError extends Error {
	override readonly name = 'RequestError';
	constructor(readonly body: ErrorBody) {
		super(body.message);
	}
}

/** Calls a server route. Throws RequestError with a sentence for a person, also when nothing answers. */
export async function call<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<T> {
	let response: Response;
	try {
		const isFile = body instanceof Blob;
		response = await fetch(path, {
			method,
			...(body !== undefined && {
				body: isFile ? body : JSON.stringify(body),
				headers: { 'Content-Type': isFile ? 'application/octet-stream' : 'application/json' }
			})
		});
	} catch {
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
	const error = (value as { error?: ErrorBody } | null)?.error ?? (value as ErrorBody | null);
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
