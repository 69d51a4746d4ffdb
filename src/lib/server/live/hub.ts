import { randomUUID } from 'node:crypto';
import { sql, type Kysely } from 'kysely';
import pg from 'pg';
import { InputError } from '../../core/errors.ts';
import { LISTS, type Arrived, type ListKind, type LiveEvents, type Other, type Thing } from '../../workbench/live.ts';
import type { Database } from '../database.ts';
import { actAs, type Acting } from '../people/acting.ts';

/** How often it is said that a window is still open, and asked whether its person may still look: milliseconds. */
const BEAT = 15_000;
/** A window that is not heard of for so long is gone: seconds. */
const GONE_AFTER = 50;
/** What changes elsewhere is told so often at most: milliseconds. */
const LISTS_EVERY = 700;
const LISTEN_AGAIN = 1_000;
/** Windows that one person may have open at one web process. */
const MOST_WINDOWS = 40;

/** What PostgreSQL tells of a change (migration 0022). */
interface Told {
	readonly house: string;
	readonly kind: ListKind | 'presence';
	readonly id: string;
	readonly version: number | null;
	readonly person: string | null;
}

interface Seat {
	readonly who: Acting & { readonly person: string };
	readonly thing: Thing;
	readonly send: <E extends keyof LiveEvents>(event: E, data: LiveEvents[E]) => void;
	readonly beat: () => void;
	readonly mayStill: () => Promise<boolean>;
	readonly end: () => void;
}

/**
 * Tells windows, as server-sent events (HTML, 9.2), who else looks at what they show and what changes of it. What happens at
 * another web process, or in a worker, comes by PostgreSQL (LISTEN).
 */
export class Hub {
	private readonly seats = new Map<string, Seat>();
	private listening: Promise<void> | undefined;
	private client: pg.Client | undefined;
	private readonly changed = new Map<string, Map<ListKind, Set<string | null>>>();
	private readonly timer = setInterval(() => void this.beat().catch(() => undefined), BEAT);
	private isClosed = false;

	/** `url` leads to the PostgreSQL itself; where it is undefined, as behind a pooler, changes are not heard of. */
	constructor(
		private readonly db: Kysely<Database>,
		private readonly url: string | undefined
	) {
		this.timer.unref();
	}

	/** A stream for a window on a thing, until either side ends it. Throws InputError where somebody has too many open. */
	async open(who: Seat['who'], thing: Thing, mayStill: Seat['mayStill']): Promise<ReadableStream<Uint8Array>> {
		const theirs = [...this.seats.values()].filter((seat) => seat.who.person === who.person);
		if (theirs.length >= MOST_WINDOWS)
			throw new InputError(
				'too-often',
				`You have ${MOST_WINDOWS} windows open; changes are not shown live in this one.`
			);
		await (this.listening ??= this.listen());
		const id = randomUUID();
		const encoder = new TextEncoder();
		return new ReadableStream<Uint8Array>({
			start: async (controller) => {
				const write = (text: string) => {
					try {
						controller.enqueue(encoder.encode(text));
					} catch {
						void this.leave(id);
					}
				};
				const seat: Seat = {
					who,
					thing,
					send: (event, data) => write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`),
					beat: () => write(': still here\n\n'),
					mayStill,
					end: () => {
						void this.leave(id);
						try {
							controller.close();
						} catch {
							// Whoever listened went away first.
						}
					}
				};
				this.seats.set(id, seat);
				write('retry: 2000\n\n');
				if (!thing) return;
				await actAs(who, async () => {
					await this.db.insertInto('presence').values({ seat: id, thing }).execute();
					await this.tellOthers(who.house, thing);
					const arrived = await this.arrived(thing, null);
					if (arrived) seat.send('arrived', arrived);
				}).catch((error: unknown) => {
					// The window asks again.
					this.seats.delete(id);
					throw error;
				});
			},
			cancel: () => this.leave(id)
		});
	}

	/** Ends all streams. */
	async close(): Promise<void> {
		this.isClosed = true;
		clearInterval(this.timer);
		for (const seat of [...this.seats.values()]) seat.end();
		await this.client?.end().catch(() => undefined);
	}

	private async leave(id: string): Promise<void> {
		const seat = this.seats.get(id);
		if (!this.seats.delete(id) || !seat?.thing) return;
		await actAs(seat.who, () => this.db.deleteFrom('presence').where('seat', '=', id).execute()).catch(() => undefined);
	}

	/** Listens until it is closed; a lost connection is replaced, and windows look themselves what they missed. */
	private async listen(): Promise<void> {
		if (this.url === undefined || this.isClosed) return;
		const client = new pg.Client({ connectionString: this.url, keepAlive: true });
		client.on('error', () => undefined);
		client.on('notification', ({ payload }) => void this.take(JSON.parse(payload!) as Told).catch(() => undefined));
		let isOver = false;
		const again = () => {
			if (!isOver) setTimeout(() => void this.listenAgain(), LISTEN_AGAIN).unref();
			isOver = true;
		};
		client.once('end', again);
		try {
			await client.connect();
			await client.query('listen heptarch_change');
			this.client = client;
		} catch {
			// One that never came to be tells of no end.
			again();
			await client.end().catch(() => undefined);
		}
	}
	private async listenAgain(): Promise<void> {
		if (this.isClosed) return;
		await this.listen();
		for (const { who, thing } of this.things()) {
			await this.tellArrived(who, thing, null).catch(() => undefined);
			await actAs(who, () => this.tellOthers(who.house, thing)).catch(() => undefined);
		}
	}

	private async take(told: Told): Promise<void> {
		const { house, kind, id, person } = told;
		const inHouse = { house, person: null };
		if (kind === 'presence') return actAs(inHouse, () => this.tellOthers(house, id as Thing));
		const thing = (kind === 'house' ? 'house' : kind === 'editions' ? `styles/${id}` : `${kind}/${id}`) as Thing;
		await this.tellArrived(inHouse, thing, person);
		const kinds = this.changed.get(house) ?? new Map<ListKind, Set<string | null>>();
		if (!this.changed.size) setTimeout(() => this.tellLists(), LISTS_EVERY).unref();
		this.changed.set(house, kinds.set(kind, (kinds.get(kind) ?? new Set()).add(person)));
	}

	private on = (house: string, thing: Thing) =>
		[...this.seats.values()].filter((seat) => seat.who.house === house && seat.thing === thing);
	private things(): { who: Acting; thing: Thing }[] {
		const found = new Map([...this.seats.values()].map(({ who, thing }) => [`${who.house} ${thing}`, { who, thing }]));
		return [...found.values()].filter(({ thing }) => thing);
	}

	/** Says how a thing stands to whoever looks at it. */
	private async tellArrived(who: Acting, thing: Thing, person: string | null): Promise<void> {
		const seats = this.on(who.house, thing);
		if (!seats.length) return;
		const arrived = await actAs({ house: who.house, person: null }, () => this.arrived(thing, person));
		if (arrived) for (const seat of seats) seat.send('arrived', arrived);
	}
	private async arrived(thing: Thing, person: string | null): Promise<Arrived | undefined> {
		const [kind, id] = thing.split('/');
		const { rows } = await sql<Arrived>`
			select version, (select name from colleagues where colleagues.id = ${person}::text) as by, label from ${
				kind === 'documents'
					? sql`documents t left join document_steps s on s.document_id = t.id and s.step = t.step where t.id = ${id}::uuid`
					: kind === 'styles'
						? sql`styles t left join style_steps s on s.style_id = t.id and s.step = t.step where t.id = ${id}::uuid`
						: sql`houses t left join house_steps s on s.step = t.step where t.id = current_house()`
			}`.execute(this.db);
		return rows[0];
	}

	/** Says who is there to whoever looks at a thing; oneself, in whichever window, is nobody else. */
	private async tellOthers(house: string, thing: Thing): Promise<void> {
		const seats = this.on(house, thing);
		if (!seats.length) return;
		const { rows } = await sql<Other>`
			select distinct c.id, c.name from presence p join colleagues c on c.id = p.person_id
			where p.thing = ${thing} and p.seen_at > now() - make_interval(secs => ${GONE_AFTER}) order by c.name`.execute(this.db);
		for (const seat of seats)
			seat.send(
				'others',
				rows.filter(({ id }) => id !== seat.who.person)
			);
	}

	private tellLists(): void {
		const all = [...this.changed];
		this.changed.clear();
		for (const [house, kinds] of all)
			for (const seat of this.seats.values()) {
				if (seat.who.house !== house) continue;
				const told = LISTS.filter((kind) => [...(kinds.get(kind) ?? [])].some((person) => person !== seat.who.person));
				if (told.length) seat.send('lists', told);
			}
	}

	private async beat(): Promise<void> {
		for (const seat of [...this.seats.values()])
			if (await seat.mayStill().catch(() => true)) seat.beat();
			else seat.end();
		for (const house of new Set([...this.seats.values()].map(({ who }) => who.house)))
			await actAs({ house, person: null }, async () => {
				await this.db
					.updateTable('presence')
					.set({ seen_at: sql`now()` })
					.where(
						'seat',
						'in',
						[...this.seats].filter(([, { who }]) => who.house === house).map(([id]) => id)
					)
					.execute();
				await this.db
					.deleteFrom('presence')
					.where('seen_at', '<', sql<Date>`now() - make_interval(secs => ${GONE_AFTER})`)
					.execute();
			});
	}
}
