import { ConflictError, describeError, type ErrorBody } from '../http/answers.ts';

const TITLES: Readonly<Record<number, string>> = {
	400: 'Bad Request',
	401: 'Unauthorized',
	403: 'Forbidden',
	404: 'Not Found',
	405: 'Method Not Allowed',
	409: 'Conflict',
	410: 'Gone',
	412: 'Precondition Failed',
	413: 'Content Too Large',
	415: 'Unsupported Media Type',
	421: 'Misdirected Request',
	422: 'Unprocessable Content',
	428: 'Precondition Required',
	429: 'Too Many Requests',
	500: 'Internal Server Error',
	503: 'Service Unavailable',
	507: 'Insufficient Storage'
};

/** What went wrong, as RFC 9457 has it: its `type` is a URN of the code. */
export const problemBody = (status: number, { message, code, ...more }: ErrorBody): object => ({
	type: `urn:heptarch:problem:${code}`,
	title: TITLES[status] ?? 'Error',
	status,
	detail: message,
	code,
	...more
});

export const problem = (status: number, body: ErrorBody, headers: Record<string, string> = {}): Response =>
	new Response(JSON.stringify(problemBody(status, body)), {
		status,
		headers: { 'Content-Type': 'application/problem+json', ...headers }
	});

/** A known error as a problem; undefined for what is our own fault. Somebody who came too late is told so (RFC 9110, 15.5.13). */
export function problemOf(error: unknown): Response | undefined {
	const described = describeError(error);
	if (!described) return undefined;
	const status = error instanceof ConflictError ? 412 : described.status;
	const version = (described.body.current as { version?: unknown } | undefined)?.version;
	return problem(status, described.body, typeof version === 'number' ? { ETag: `"v${version}"` } : {});
}
