import { error as httpError, json } from '@sveltejs/kit';
import { InputError } from '../../core/errors.ts';
import { passingWords } from '../database.ts';

/** The one shape of an error: a sentence for a person, a code and a place for programs. */
export interface ErrorBody {
	readonly message: string;
	readonly code: string;
	readonly where?: string;
	/** What somebody else saved in the meantime, where that is why. */
	readonly current?: unknown;
}

/** Somebody else saved first: what is there now goes along, so that both can be looked at. */
export class ConflictError extends Error {
	override readonly name = 'ConflictError';
	constructor(
		message: string,
		readonly current: unknown
	) {
		super(message);
	}
}

export class NotFoundError extends Error {
	override readonly name = 'NotFoundError';
}

/** PostgreSQL's codes (Appendix A) for what two did at once: *unique violation*, *serialization failure*, *deadlock detected*. */
const CLASHES = new Set(['23505', '40001', '40P01']);
const isClash = (error: unknown): boolean =>
	error instanceof Error && CLASHES.has((error as { code?: string }).code ?? '');

const STATUS: Record<string, number> = {
	'too-large': 413,
	worn: 409,
	'name-taken': 409,
	'media-type': 415,
	'no-room': 507,
	'sign-in': 401,
	role: 403,
	'too-often': 429,
	link: 410,
	'last-keeper': 409,
	'second-eyes': 403,
	proposed: 409,
	answered: 409,
	'key-used': 422,
	'key-busy': 409
};

/** The status and body that an error is answered with; undefined for errors that are our own fault. */
export function describeError(error: unknown): { status: number; body: ErrorBody } | undefined {
	if (error instanceof InputError)
		return {
			status: STATUS[error.code] ?? 422,
			body: { message: error.message, code: error.code, ...(error.where && { where: error.where }) }
		};
	if (error instanceof ConflictError)
		return { status: 409, body: { message: error.message, code: 'conflict', current: error.current } };
	const passing = passingWords(error);
	if (passing !== undefined) return { status: 503, body: { message: passing, code: 'offline' } };
	if (isClash(error))
		return {
			status: 409,
			body: { message: 'Somebody else did the same at this moment. Nothing was changed; try again.', code: 'clash' }
		};
	if (error instanceof NotFoundError) return { status: 404, body: { message: error.message, code: 'not-found' } };
	return undefined;
}

/** Runs a server route and answers as JSON, errors included. */
export async function answer<T>(work: () => Promise<T | Response>, status = 200): Promise<Response> {
	try {
		const result = await work();
		return result instanceof Response ? result : json(result ?? null, { status });
	} catch (error) {
		const described = describeError(error);
		if (!described) throw error;
		return json({ error: described.body }, { status: described.status });
	}
}

/** For page loads: known errors become pages with their sentence. */
export async function load<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (error) {
		const described = describeError(error);
		if (!described) throw error;
		httpError(described.status, described.body);
	}
}
