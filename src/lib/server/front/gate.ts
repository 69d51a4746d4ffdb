import type { IncomingHttpHeaders } from 'node:http';

export interface Gate {
	/** Host names, lower case and without their port, under which the server may be asked. */
	readonly hosts: ReadonlySet<string>;
	/** Where people reach it, if that is not simply the `Host` of a request: behind a proxy. */
	readonly origin?: string | undefined;
}

export interface Refused {
	readonly status: number;
	readonly code: string;
	readonly message: string;
}

/** Names of this machine to itself. */
export const LOOPBACK: readonly string[] = ['localhost', '127.0.0.1', '[::1]'];

/** The gate as the environment sets it: `HEPTARCH_HOSTS` (names, parted by commas) and `ORIGIN` beside the loopback names. */
export function gateOf(env: Readonly<Record<string, string | undefined>>): Gate {
	const named = (env.HEPTARCH_HOSTS ?? '').split(',').map((name) => name.trim().toLowerCase());
	const own = env.ORIGIN ? [new URL(env.ORIGIN).hostname] : [];
	return {
		hosts: new Set([...LOOPBACK, ...own, ...named].filter(Boolean)),
		origin: env.ORIGIN ? new URL(env.ORIGIN).origin : undefined
	};
}

/** The name in a `Host`, without its port. */
export const nameOf = (host: string) => host.toLowerCase().replace(/:\d*$/, '');
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Every request passes here first. One for a name that is not ours is refused, so that a page elsewhere whose name resolves
 * to this machine reads nothing; so is a write that another origin's page sends (Fetch Metadata, *Sec-Fetch-Site*; RFC 6454,
 * *Origin*). Programs send neither header.
 */
export function passes(gate: Gate, method: string, headers: IncomingHttpHeaders): Refused | undefined {
	const { host, origin } = headers;
	if (!host || !gate.hosts.has(nameOf(host)))
		return {
			status: 421,
			code: 'host',
			message: 'This server is not known under this name. Its operator adds names with HEPTARCH_HOSTS.'
		};
	if (READS.has(method)) return undefined;
	const site = headers['sec-fetch-site'];
	const isOwn = origin === undefined || origin === gate.origin || isOriginOf(origin, host);
	if (!isOwn || (site !== undefined && site !== 'same-origin' && site !== 'none'))
		return {
			status: 403,
			code: 'origin',
			message: 'This request comes from a page of another site, so nothing was changed.'
		};
	return undefined;
}

function isOriginOf(origin: string, host: string): boolean {
	return origin === `http://${host}` || origin === `https://${host}`;
}
