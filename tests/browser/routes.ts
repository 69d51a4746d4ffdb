import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { SCHEMAS } from '../../src/lib/server/http/requests.ts';

const ROUTES = join(import.meta.dirname, '..', '..', 'src', 'routes');

export interface Route {
	readonly method: string;
	/** As SvelteKit calls it: what changes stands in brackets. */
	readonly path: string;
	/** The schema of its body. */
	readonly kind: keyof typeof SCHEMAS | undefined;
	readonly isFile: boolean;
	readonly isPage: boolean;
}

/** Every route, as its file says what it answers to, and every page. */
export function routes(): Route[] {
	return readdirSync(ROUTES, { recursive: true, encoding: 'utf8' })
		.sort()
		.flatMap((name): Route[] => {
			const path = `/${name.replace(/\/?\+[^/]*$/, '')}`;
			if (name.endsWith('+page.svelte')) return [{ method: 'GET', path, kind: undefined, isFile: false, isPage: true }];
			if (!name.endsWith('+server.ts')) return [];
			const source = readFileSync(join(ROUTES, name), 'utf8');
			return source
				.split(/export const (?=[A-Z]+: RequestHandler)/)
				.slice(1)
				.map((part) => ({
					method: /^[A-Z]+/.exec(part)![0],
					path,
					kind: /readRequest\(request, '(\w+)'\)/.exec(part)?.[1] as keyof typeof SCHEMAS | undefined,
					isFile: part.includes('uploaded('),
					isPage: false
				}));
		});
}

/** What an answer says; a stream of events, which has no end, says nothing here. */
export async function textOf(answer: Response): Promise<string> {
	if (!answer.headers.get('content-type')?.startsWith('text/event-stream')) return answer.text();
	await answer.body?.cancel();
	return '';
}
