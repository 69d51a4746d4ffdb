import { createHmac } from 'node:crypto';
import { lookup } from 'node:dns/promises';
import { BlockList, isIP } from 'node:net';
import type { Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { EventName } from '../../workbench/events.ts';
import type { Database } from '../database.ts';
import type { Db } from '../documents/rows.ts';
import { BY } from '../history.ts';
import { addToLog } from '../house/log.ts';
import { NotFoundError } from '../http/answers.ts';

/** An address that is told of events. */
export interface Webhook {
	readonly id: string;
	readonly url: string;
	readonly events: readonly EventName[];
	readonly by: string | null;
	readonly since: string;
	/** What was told last: when (ISO 8601; null where it was not), and what was said to it. */
	readonly last: { readonly at: string | null; readonly said: string | null; readonly isTold: boolean } | null;
}

/** The key of an address is worked out, so that it is kept nowhere: of what it signs, and that it is the right one. */
export const secretOf = (installation: string, webhook: string): string =>
	`whsec_${createHmac('sha256', installation).update(`webhook ${webhook}`).digest('base64')}`;

/** Addresses of this machine, of networks that are nobody else's business, and of none (IANA special-purpose registries). */
const PRIVATE = new BlockList();
for (const [net, prefix] of [
	['0.0.0.0', 8],
	['10.0.0.0', 8],
	['100.64.0.0', 10],
	['127.0.0.0', 8],
	['169.254.0.0', 16],
	['172.16.0.0', 12],
	['192.0.0.0', 24],
	['192.0.2.0', 24],
	['192.88.99.0', 24],
	['192.168.0.0', 16],
	['198.18.0.0', 15],
	['198.51.100.0', 24],
	['203.0.113.0', 24],
	['224.0.0.0', 3]
] as const)
	PRIVATE.addSubnet(net, prefix, 'ipv4');
/** Of IPv6, only what is given out to the world is asked: 2000::/3, without what leads back into IPv4 or is for examples. */
const WORLD = new BlockList();
WORLD.addSubnet('2000::', 3, 'ipv6');
for (const [net, prefix] of [
	['2001::', 23],
	['2001:db8::', 32],
	['2002::', 16],
	['3fff::', 20]
] as const)
	PRIVATE.addSubnet(net, prefix, 'ipv6');

/** Whether an IP address is one of the world outside. */
export const isOutside = (address: string): boolean =>
	isIP(address) === 4
		? !PRIVATE.check(address, 'ipv4')
		: isIP(address) === 6 && WORLD.check(address, 'ipv6') && !PRIVATE.check(address, 'ipv6');

/** Hosts that may be told all the same, as whoever keeps the installation says (`HEPTARCH_WEBHOOKS`). */
export const allowedHosts = (env: Readonly<Record<string, string | undefined>>): readonly string[] =>
	(env.HEPTARCH_WEBHOOKS ?? '')
		.split(',')
		.map((host) => host.trim().toLowerCase())
		.filter(Boolean);

/**
 * The IP address at which an address of the web is told. Throws InputError for one of this machine or of a private network:
 * nobody is to reach through us what they cannot reach themselves.
 */
export async function addressOf(url: string, allowed: readonly string[]): Promise<{ address: string; family: number }> {
	const refuse = (why: string) => new InputError('address', `“${url}” is not told: ${why}.`, '/url');
	let at: URL;
	try {
		at = new URL(url);
	} catch {
		throw refuse('it is no address');
	}
	if (at.username || at.password) throw refuse('a name or password stands in it');
	const isAllowed = allowed.includes(at.host.toLowerCase());
	if (at.protocol !== 'https:' && !(isAllowed && at.protocol === 'http:')) throw refuse('it is not of https');
	const name = at.hostname.replace(/^\[|\]$/g, '');
	const found = isIP(name)
		? [{ address: name, family: isIP(name) }]
		: await lookup(name, { all: true }).catch(() => {
				throw refuse('its name leads nowhere');
			});
	if (!isAllowed && !found.every(({ address }) => isOutside(address)))
		throw refuse('it is one of this machine or of a private network; its operator allows some with HEPTARCH_WEBHOOKS');
	return found[0]!;
}

/** Tells an address of events from now on. Throws InputError where it is not to be told. */
export async function addWebhook(
	db: Kysely<Database>,
	{ url, events }: { readonly url: string; readonly events: readonly EventName[] },
	installation: string,
	allowed: readonly string[]
): Promise<{ id: string; secret: string }> {
	await addressOf(url, allowed);
	return db.transaction().execute(async (trx) => {
		const { id } = await trx
			.insertInto('webhooks')
			.values({ url, events: [...new Set(events)] })
			.returning('id')
			.executeTakeFirstOrThrow();
		await addToLog(trx, 'token', `${new URL(url).host} is told of ${events.join(', ')} from now on`);
		return { id, secret: secretOf(installation, id) };
	});
}

export async function listWebhooks(db: Kysely<Database>): Promise<Webhook[]> {
	const rows = await db
		.selectFrom('webhooks')
		.select(['id', 'url', 'events', 'created_at', BY.as('by')])
		.orderBy('created_at')
		.execute();
	const last = await db
		.selectFrom('deliveries')
		.distinctOn('webhook_id')
		.select(['webhook_id', 'told_at', 'said'])
		.where('attempts', '>', 0)
		.orderBy('webhook_id')
		.orderBy('created_at', 'desc')
		.execute();
	const lastOf = new Map(last.map((one) => [one.webhook_id, one]));
	return rows.map(({ id, url, events, created_at, by }) => {
		const told = lastOf.get(id);
		return {
			id,
			url,
			events,
			by,
			since: created_at.toISOString(),
			last: told ? { at: told.told_at?.toISOString() ?? null, said: told.said, isTold: told.told_at !== null } : null
		};
	});
}

/** An address is told of nothing any more. Throws NotFoundError. */
export async function removeWebhook(db: Kysely<Database>, id: string): Promise<void> {
	await db.transaction().execute(async (trx) => {
		const gone = await trx.deleteFrom('webhooks').where('id', '=', id).returning('url').executeTakeFirst();
		if (!gone) throw new NotFoundError('There is no such address.');
		await addToLog(trx, 'token', `${new URL(gone.url).host} is told of nothing any more`);
	});
}

/**
 * Writes down, with whatever is done in the same transaction, that something happened; a worker tells it. `subject` is what
 * happened, so that it is told once.
 */
export async function announce(trx: Db, event: EventName, subject: string, data: object): Promise<void> {
	const listening = await trx.selectFrom('webhooks').select(['id', 'events']).execute();
	const wanted = listening.filter(({ events }) => events.includes(event));
	if (!wanted.length) return;
	await trx
		.insertInto('deliveries')
		.values(wanted.map(({ id }) => ({ webhook_id: id, event, subject, data: JSON.stringify(data) })))
		.onConflict((conflict) => conflict.columns(['house_id', 'webhook_id', 'event', 'subject']).doNothing())
		.execute();
}
