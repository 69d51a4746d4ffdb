import type { IncomingMessage, ServerResponse } from 'node:http';
import type { ErrorBody } from '../http/answers.ts';
import { problemBody } from '../api/problem.ts';
import { DATA, pathOf } from './light.ts';

const escaped = (text: string) => text.replace(/[&<>]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[sign]!);

/** Answers a request that never reached a route: in the form in which whoever asks reads errors. */
export function refuse(
	request: IncomingMessage,
	response: ServerResponse,
	{ status, ...body }: ErrorBody & { readonly status: number }
): void {
	if (response.headersSent || response.destroyed) {
		response.destroy();
		return;
	}
	if (status === 503) response.setHeader('Retry-After', '5');
	const send = (code: number, type: string, text: string) => {
		response.writeHead(code, { 'Content-Type': type, 'X-Content-Type-Options': 'nosniff', Connection: 'close' });
		response.end(text);
	};
	// The forms in which SvelteKit fetches the data of a page, reads errors of it, and shows them.
	if (pathOf(request).endsWith(DATA))
		send(
			200,
			'application/json',
			JSON.stringify({ type: 'data', nodes: [null, { type: 'error', error: body, status }] })
		);
	else if (request.headers.accept?.includes('text/html'))
		send(
			status,
			'text/html; charset=utf-8',
			`<!doctype html><html lang="en"><meta charset="utf-8"><title>Heptarch</title><body style="font: 16px/1.5 sans-serif; max-width: 36em; margin: 4em auto"><h1>This page is not here now</h1><p>${escaped(body.message)}</p><p><a href="/documents">To the documents</a></p></body></html>`
		);
	else if (pathOf(request).startsWith('/api/v1/'))
		send(status, 'application/problem+json', JSON.stringify(problemBody(status, body)));
	else send(status, 'application/json', JSON.stringify({ error: body }));
}
