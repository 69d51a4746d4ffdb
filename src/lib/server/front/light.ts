/**
 * What the web process answers itself: pages and routes that take a few queries and no file. Whatever is not listed here
 * is given to a hand, so that a new route cannot make everybody wait by being forgotten.
 */
const LIGHT: readonly (readonly [methods: string, path: RegExp])[] = [
	['GET', /^\/(_app|schema|health)\//],
	['GET', /^\/[^/]+\.(svg|png|ico|txt|webmanifest)$/],
	[
		'GET',
		/^\/(documents|house|runs|starters|me|sign-in|house\/people|house\/log|house\/programs|programs|enter\/[^/]+)$/
	],
	['POST PUT DELETE', /^\/api\/(session(\/[a-z]+)?|me(\/[a-z]+)?|me\/sessions\/[^/]+|enter\/[^/]+|houses)$/],
	['POST PUT DELETE', /^\/api\/house\/(name|invitations|people|programs|eyes|keeping)(\/[^/]+)*$/],
	['GET', /^\/api\/(documents|house|runs|starters|styles|live)$/],
	['GET PUT', /^\/api\/(runs|rollouts)\/[^/]+$/],
	['POST', /^\/api\/(runs|styles|starters)$/],
	['PUT DELETE', /^\/api\/(documents|starters)\/[^/]+$/],
	['PUT POST', /^\/api\/house(\/(?!backup$)[a-z]+)?$/],
	['GET PUT POST', /^\/api\/styles\/[^/]+\/(steps|use|aside|step|editions|proposals(\/[^/]+)?)$/],
	['PUT', /^\/api\/styles\/[^/]+$/],
	['GET', /^\/api\/v1\/(openapi\.json|me|house|documents|styles|runs|webhooks|documents\/[^/]+|runs\/[^/]+)$/],
	['GET POST', /^\/api\/v1\/(styles\/[^/]+\/(editions|proposals)|webhooks|runs)$/]
];

/** The path that is asked for, as it was sent: not every one is a valid address. */
export const pathOf = ({ url = '/' }: { readonly url?: string | undefined }): string => url.split('?', 1)[0]!;

/** The end of the addresses at which pages fetch their data. */
export const DATA = '/__data.json';

export function isLight(method: string, path: string): boolean {
	const page = path.endsWith(DATA) ? path.slice(0, -DATA.length) || '/' : path;
	const asked = method === 'HEAD' ? 'GET' : method;
	return LIGHT.some(([methods, pattern]) => methods.split(' ').includes(asked) && pattern.test(page));
}
