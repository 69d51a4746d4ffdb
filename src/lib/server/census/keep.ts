import { sql, type Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { mapOf } from '../../core/census/map.ts';
import { distance, portrait } from '../../core/lift/likeness.ts';
import { appearanceOf } from '../../core/cascade/look.ts';
import { resolve } from '../../core/cascade/resolve.ts';
import { flatten } from '../../core/style/inherit.ts';
import { builtInSpecimen } from '../../workbench/specimen.ts';
import { connectAsOwner, isAway, type Database } from '../database.ts';
import { loadHouse } from '../house/house.ts';
import { NotFoundError } from '../http/answers.ts';
import { inEveryHouse } from '../people/houses.ts';
import { Rounds } from '../rounds.ts';
import { Wardrobe } from '../styles/editions.ts';
import { findIn } from '../styles/styles.ts';
import { COUNTED_BY, countDocument } from './count.ts';
import { Gallery, openPortrait, sweepLooks } from './gallery.ts';

/** How often it is asked whether something changed: milliseconds. */
const EVERY = 1_000;
/** How often what takes longer, and changes less, is looked after. */
const NOW_AND_THEN = 5_000;
/** A document that was begun so often and never came to an end ended its worker each time. */
const MOST_TRIES = 3;
const TOO_MUCH =
	'Counting this document took more memory or computing time than a job may take, each time that it was tried.';
/** Who began to count a document and is not heard of for so long was lost, in seconds; whatever failed is tried again later. */
const LOST_AFTER = 120;
const AGAIN_AFTER = 3_600;
/** How often what nobody looks like any more goes: milliseconds. */
const SWEEP_EVERY = 3_600_000;
/** So many groups stand on the map. */
const ON_MAP = 150;

interface CountWatch {
	readonly begin?: () => void;
	readonly rest?: () => void;
}

/** Keeps the census of every house until it is stopped. */
export class Censuses {
	private readonly censuses = new Map<string, Census>();
	private readonly owner: Kysely<Database>;
	private readonly rounds: Rounds;

	constructor(
		private readonly db: Kysely<Database>,
		url: string,
		private readonly onerror: (error: Error) => void
	) {
		this.owner = connectAsOwner(url);
		this.rounds = new Rounds(EVERY, onerror);
	}

	/** Begins; what goes wrong is told of once, and tried again. */
	start(watch: CountWatch = {}): void {
		const { goesOn } = this.rounds;
		this.rounds.start(() => inEveryHouse(this.owner, (house) => this.of(house).round(watch, goesOn)));
	}
	/** Ends when what is being counted is counted. */
	async stop(): Promise<void> {
		await this.rounds.stop();
		await this.owner.destroy();
	}

	private of(house: string): Census {
		const known = this.censuses.get(house) ?? new Census(this.db, this.onerror);
		this.censuses.set(house, known);
		return known;
	}
}

/** The census of a house: counts each of its documents that was changed, one after the other. */
export class Census {
	private readonly gallery = new Gallery();
	private looked = 0;
	private swept = 0;

	constructor(
		private readonly db: Kysely<Database>,
		private readonly onerror: (error: Error) => void = () => undefined
	) {}

	/** Counts all that changed, as long as it is to go on; answers how many documents that were. */
	async round(watch: CountWatch = {}, goesOn: () => boolean = () => true): Promise<number> {
		const isFirst = this.looked === 0;
		if (isFirst)
			await sql`update documents set counted_at = null, count_tries = 0
				where counted_by <> ${COUNTED_BY} and counted_at is not null`.execute(this.db);
		let count = 0;
		for (let id; goesOn() && (id = await this.next()); count++) {
			watch.begin?.();
			try {
				await this.count(id);
			} finally {
				watch.rest?.();
			}
		}
		if (count > 0 || Date.now() - this.looked > NOW_AND_THEN) {
			await nameLost(this.db);
			await lookAtStyles(this.db);
			await renewPictures(this.db);
			if (count > 0 || isFirst) await drawMap(this.db);
			if (Date.now() - this.swept > SWEEP_EVERY) {
				await sweepLooks(this.db);
				this.swept = Date.now();
			}
			this.looked = Date.now();
		}
		return count;
	}

	/** A document that is to be counted, and that it was begun; of several workers each gets another one. */
	private async next(): Promise<string | undefined> {
		const { rows } = await sql<{ id: string }>`
			update documents set count_tries = count_tries + 1, count_begun = now() where id = (
				select id from documents
				where removed_at is null and counted_at is distinct from updated_at
					and (count_begun is null or count_begun < now() - make_interval(secs => ${LOST_AFTER}))
					and (count_tries < ${MOST_TRIES} or count_begun < now() - make_interval(secs => ${AGAIN_AFTER}))
				order by updated_at limit 1 for update skip locked
			) returning id`.execute(this.db);
		return rows[0]?.id;
	}

	private async count(id: string): Promise<void> {
		try {
			await countDocument(this.db, this.gallery, id);
		} catch (error) {
			if (error instanceof NotFoundError) return;
			if (isAway(error)) throw error;
			// What its file is to blame for is said on the page; anything else is tried again, and then left.
			if (!(error instanceof InputError)) this.onerror(error as Error);
			const words =
				error instanceof InputError ? error.message : 'Something went wrong; the log of the server says more.';
			await this.db.deleteFrom('census_tables').where('document_id', '=', id).execute();
			await sql`update documents set count_fault = ${words}, counted_by = ${COUNTED_BY}, count_begun = null,
				counted_at = case when ${error instanceof InputError} then updated_at else counted_at end
				where id = ${id}`.execute(this.db);
		}
	}
}

/** A document that ended its worker each time is named, and waited for no more. */
async function nameLost(db: Kysely<Database>): Promise<void> {
	await sql`update documents set count_fault = ${TOO_MUCH}
		where removed_at is null and count_fault is null and count_tries >= ${MOST_TRIES}
			and counted_at is distinct from updated_at
			and count_begun < now() - make_interval(secs => ${LOST_AFTER})`.execute(db);
}

/** Styles that say something else than before are looked at anew, on the table that has every part. */
async function lookAtStyles(db: Kysely<Database>): Promise<void> {
	const { rows } = await sql<{ id: string; made_of: string }>`
		select s.id, now.made_of from styles s
		left join lateral (select max(number) as number from editions where style_id = s.id) e on true
		cross join lateral (select coalesce('edition ' || e.number, 'draft ' || s.version) as made_of) now
		left join census_styles c on c.style_id = s.id
		where c.made_of is distinct from now.made_of`.execute(db);
	if (!rows.length) return;
	const wardrobe = await Wardrobe.load(db);
	const offered = new Map(wardrobe.offered().map((style) => [style.id, style]));
	const house = await loadHouse(db);
	const { table } = builtInSpecimen();
	for (const { id, made_of } of rows) {
		const style = offered.get(id);
		if (!style) continue;
		const flat = flatten(style.definition, findIn(wardrobe.styles));
		const seen = JSON.stringify([...portrait(table, appearanceOf(resolve(table, flat, house)))]);
		await db
			.insertInto('census_styles')
			.values({ style_id: id, made_of, portrait: seen })
			.onConflict((conflict) => conflict.columns(['house_id', 'style_id']).doUpdateSet({ made_of, portrait: seen }))
			.execute();
	}
}

/** A group whose picture is of a document that is gone or put aside gets one of another of its documents. */
async function renewPictures(db: Kysely<Database>): Promise<void> {
	await sql`with bare as (
			select l.id from census_looks l left join documents d on d.id = l.picture_of
			where l.leader is null and (l.picture_of is null or d.removed_at is not null or d.archived_at is not null)
		), heirs as (
			select distinct on (bare.id) bare.id, t.document_id from bare
			join census_looks m on m.id = bare.id or m.leader = bare.id
			join census_tables t on t.look = m.id
			join documents d on d.id = t.document_id and d.removed_at is null and d.archived_at is null
				and d.count_tries = 0 and d.count_fault is null
			order by bare.id, t.document_id
		), cleared as (
			update census_looks set picture = null, picture_of = null where id in (select id from heirs)
		)
		update documents set counted_at = null
		where id in (select document_id from heirs)`.execute(db);
}

/** Puts the largest groups on the map again where one of them has no place on it. */
async function drawMap(db: Kysely<Database>): Promise<void> {
	const groups = await largestGroups(db);
	if (!groups.some(({ x }) => x === null)) return;
	const portraits = groups.map((group) => openPortrait(group.portrait));
	const spots = mapOf(groups.length, (a, b) => distance(portraits[a]!, portraits[b]!));
	await db.transaction().execute(async (trx) => {
		await trx.updateTable('census_looks').set({ x: null, y: null }).where('x', 'is not', null).execute();
		for (const [i, { id }] of groups.entries())
			await trx.updateTable('census_looks').set(spots[i]!).where('id', '=', id).execute();
	});
}

async function largestGroups(db: Kysely<Database>) {
	const { rows } = await sql<{ id: number; x: number | null; portrait: [string, unknown][] }>`
		select l.id, l.x, l.portrait from (
			select coalesce(m.leader, m.id) as id, count(*) as tables
			from census_tables t join census_looks m on m.id = t.look
			join documents d on d.id = t.document_id and d.removed_at is null and d.archived_at is null
			group by 1 order by 2 desc, 1 limit ${ON_MAP}
		) g join census_looks l on l.id = g.id`.execute(db);
	return rows;
}
