import { createHmac } from 'node:crypto';
import { request as askHttp } from 'node:http';
import { request as askHttps } from 'node:https';
import { sql, type Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { connectAsOwner, type Database } from '../database.ts';
import { inEveryHouse } from '../people/houses.ts';
import { Rounds } from '../rounds.ts';
import { addressOf, allowedHosts, secretOf } from './webhooks.ts';

/** How long after a try that failed the next one is made, in seconds; after the last it is given up. */
const AGAIN = [10, 60, 300, 1_800, 7_200, 28_800] as const;
/** How long an address may take: milliseconds. */
const PATIENCE = 10_000;
const EVERY = 1_000;
const AT_ONCE = 4;
/** What was told so long ago is forgotten, in days. */
const KEPT = 30;

/** What an address was told, signed as Standard Webhooks 1.0.0 has it. */
export const signature = (secret: string, id: string, at: number, body: string): string =>
	`v1,${createHmac('sha256', Buffer.from(secret.replace(/^whsec_/, ''), 'base64'))
		.update(`${id}.${at}.${body}`)
		.digest('base64')}`;

/** Sends a body to an address; what was answered. A redirection is not followed: it could lead where nobody may. */
function post(
	url: string,
	{ address, family }: { readonly address: string; readonly family: number },
	headers: Record<string, string>,
	body: string
): Promise<number> {
	return new Promise((resolve, reject) => {
		const ask = url.startsWith('https:') ? askHttps : askHttp;
		const asked = ask(
			url,
			{
				method: 'POST',
				headers: { ...headers, 'Content-Length': Buffer.byteLength(body) },
				timeout: PATIENCE,
				// The address that was looked at is the one that is asked, whatever its name says by now.
				lookup: (_name, options, found) =>
					options.all ? found(null, [{ address, family }]) : found(null, address, family)
			},
			(answer) => {
				answer.resume();
				resolve(answer.statusCode ?? 0);
			}
		);
		asked.on('timeout', () => asked.destroy(new Error(`no answer within ${PATIENCE / 1000} seconds`)));
		asked.on('error', reject);
		asked.end(body);
	});
}

/** Something that an address is to be told. */
interface Delivery {
	readonly id: string;
	readonly event: string;
	readonly data: object;
	readonly attempts: number;
	readonly url: string;
	readonly webhook: string;
}

/** Takes up what waits longest; of several workers each takes something else, and what one lost is taken up again. */
async function takeUp(db: Kysely<Database>): Promise<Delivery | undefined> {
	const { rows } = await sql<Delivery>`
		update deliveries d set attempts = attempts + 1,
			next_at = now() + make_interval(secs => (${sql.val([...AGAIN])}::int[])[least(d.attempts + 1, ${AGAIN.length})])
		from webhooks w where w.id = d.webhook_id and d.id = (
			select id from deliveries where told_at is null and given_up_at is null and next_at <= now()
			order by next_at limit 1 for update skip locked
		) returning d.id, d.event, d.data, d.attempts, w.url, w.id as webhook`.execute(db);
	return rows[0];
}

/** Tells an address, and writes down what it said. */
async function tell(
	db: Kysely<Database>,
	{ id, event, data, attempts, url, webhook }: Delivery,
	installation: string,
	allowed: readonly string[]
): Promise<void> {
	let said: string;
	let isTold = false;
	try {
		const at = Math.floor(Date.now() / 1000);
		const body = JSON.stringify({ type: event, timestamp: new Date(at * 1000).toISOString(), data });
		const status = await post(
			url,
			await addressOf(url, allowed),
			{
				'Content-Type': 'application/json',
				'User-Agent': 'Heptarch',
				'webhook-id': id,
				'webhook-timestamp': String(at),
				'webhook-signature': signature(secretOf(installation, webhook), id, at, body)
			},
			body
		);
		isTold = status >= 200 && status < 300;
		said = `answered ${status}`;
	} catch (error) {
		said = error instanceof InputError ? error.message : `did not answer: ${(error as Error).message}`;
	}
	await db
		.updateTable('deliveries')
		.set({
			said: said.slice(0, 500),
			...(isTold ? { told_at: sql<Date>`now()` } : attempts > AGAIN.length && { given_up_at: sql<Date>`now()` })
		})
		.where('id', '=', id)
		.execute();
}

/** Tells one address what waits for it; whether there was anything. */
export async function deliverNext(
	db: Kysely<Database>,
	installation: string,
	allowed: readonly string[]
): Promise<boolean> {
	const delivery = await takeUp(db);
	if (delivery) await tell(db, delivery, installation, allowed);
	return delivery !== undefined;
}

/** Tells addresses of every house what waits for them, until it is stopped. */
export class Deliveries {
	private readonly owner: Kysely<Database>;
	private readonly rounds: Rounds;
	private swept = 0;
	/** What is being told, by house: an address that is slow keeps nobody of another house waiting. */
	private readonly telling = new Map<string, Set<Promise<void>>>();

	constructor(
		private readonly db: Kysely<Database>,
		url: string,
		private readonly onerror: (error: Error) => void
	) {
		this.owner = connectAsOwner(url);
		this.rounds = new Rounds(EVERY, onerror);
	}

	start = (): void => this.rounds.start(() => this.round());
	async stop(): Promise<void> {
		await this.rounds.stop();
		await Promise.all([...this.telling.values()].flatMap((at) => [...at]));
		await this.owner.destroy();
	}

	private async round(): Promise<void> {
		const { rows } = await sql<{ secret: string }>`select secret from installation`.execute(this.owner);
		const sweeps = Date.now() - this.swept > 3_600_000;
		await inEveryHouse(this.owner, async (house) => {
			await this.begin(house, rows[0]!.secret);
			if (!sweeps) return;
			await sql`delete from deliveries where created_at < now() - make_interval(days => ${KEPT})`.execute(this.db);
			await sql`delete from answers_kept where created_at < now() - interval '1 day'`.execute(this.db);
			await sql`delete from rates where minute < now() - interval '1 hour'`.execute(this.db);
		});
		if (sweeps) this.swept = Date.now();
	}

	/** Begins to tell what waits in a house, so much at once; it goes on beside the rounds until nothing waits. */
	private async begin(house: string, secret: string): Promise<void> {
		const at = this.telling.get(house) ?? new Set();
		this.telling.set(house, at);
		while (at.size < AT_ONCE && this.rounds.goesOn()) {
			const first = await takeUp(this.db);
			if (!first) break;
			const telling: Promise<void> = this.goOn(first, secret)
				.catch(this.onerror)
				.finally(() => at.delete(telling));
			at.add(telling);
		}
		if (!at.size) this.telling.delete(house);
	}
	private async goOn(first: Delivery, secret: string): Promise<void> {
		for (let next: Delivery | undefined = first; next; next = this.rounds.goesOn() ? await takeUp(this.db) : undefined)
			await tell(this.db, next, secret, allowedHosts(process.env));
	}
}
