import { sql, type Kysely, type RawBuilder, type Transaction } from 'kysely';
import { InputError } from '../core/errors.ts';
import { ConflictError, NotFoundError } from './http/answers.ts';
import type { Database } from './database.ts';

type Db = Kysely<Database> | Transaction<Database>;
/** Whose history it is: an id, or how PostgreSQL knows it. */
type Id = string | RawBuilder<string>;

/** A step as it is listed: what was done, by whom (null: nobody said) and when (ISO 8601). */
export interface StepInfo {
	readonly step: number;
	readonly label: string;
	readonly by: string | null;
	readonly when: string;
}

/** Where a history stands; `version` is another after every change of it, undo and redo among them. */
export interface Standing {
	readonly step: number;
	readonly version: number;
}

/** What a window that came too late is told: where the history stands, and what was done to it last. */
export interface Overtaken extends Standing {
	readonly last: StepInfo | null;
}

interface Kind {
	/** The table of what has the history, with its `step` and `version`. */
	readonly owner: 'documents' | 'styles' | 'houses';
	/** The table of its steps, and the column that says whose they are. */
	readonly steps: 'document_steps' | 'style_steps' | 'house_steps';
	readonly of: 'document_id' | 'style_id' | 'house_id';
	/** The column of a step that holds the state after it. */
	readonly state: 'state' | 'definition';
	/** Owners that are not to be changed. */
	readonly unless?: 'removed_at';
	readonly gone: string;
	/** What was changed by somebody else: "This document". */
	readonly what: string;
	/** What is to be done about it, or what became of one's own change. */
	readonly then: string;
}

/** What a person is to do who came too late for a page that has to be loaded again. */
export const LOAD_AGAIN = 'Load it again to see what is there now.';

const lastWords = ({ label, by }: StepInfo) => (by === null ? label : `${label}, by ${by}`);

/** The one answer to a change that came too late, of what and with what is to be done about it. */
export const overtaken = (what: string, then: string, now: Overtaken): ConflictError =>
	new ConflictError(
		`${what} was changed in another window in the meantime${now.last ? `: ${lastWords(now.last)}` : ''}. ${then}`.trim(),
		now
	);

/** The name of who made a step; people who left the house are named, too. */
export const BY = sql<string | null>`(select name from colleagues where colleagues.id = made_by)`;

/** A step as it is stored, for a list. */
export const listedStep = ({
	step,
	label,
	made_by,
	created_at
}: {
	readonly step: number;
	readonly label: string;
	readonly made_by: string | null;
	readonly created_at: Date;
}): StepInfo => ({ step, label, by: made_by, when: created_at.toISOString() });

/**
 * The steps of documents (drawings are documents), styles and the house: one lock, one answer to who comes too late, and
 * any step to go to. A state is kept and given back whole.
 */
export class History<State> {
	constructor(private readonly kind: Kind) {}

	private whose(id: Id) {
		return sql`${sql.ref(this.kind.of)} = ${id}`;
	}
	private get table() {
		return sql.table(this.kind.steps);
	}

	/**
	 * Locks what has the history until the transaction ends. Throws NotFoundError where it is gone, and ConflictError where
	 * it stands at another version than was seen; then nothing of the transaction is to be kept.
	 */
	async lock(trx: Transaction<Database>, id: Id, seen?: number): Promise<Standing> {
		const { owner, unless, gone, what, then } = this.kind;
		const { rows } = await sql<Standing>`
			select step, version from ${sql.table(owner)}
			where id = ${id} ${unless ? sql`and ${sql.ref(unless)} is null` : sql``} for update`.execute(trx);
		const [standing] = rows;
		if (!standing) throw new NotFoundError(gone);
		if (seen !== undefined && seen !== standing.version) {
			const steps = await this.list(trx, id);
			const last = steps.find(({ step }) => step === standing.step) ?? null;
			throw overtaken(what, then, { ...standing, last });
		}
		return standing;
	}

	async list(db: Db, id: Id): Promise<StepInfo[]> {
		const { rows } = await sql<{ step: number; label: string; made_by: string | null; created_at: Date }>`
			select step, label, ${BY} as made_by, created_at from ${this.table} where ${this.whose(id)} order by step`.execute(db);
		return rows.map(listedStep);
	}

	/** The state after a step. Throws InputError where there is no such step. */
	async stateAt(db: Db, id: Id, step: number): Promise<State> {
		const { rows } = await sql<{ state: State }>`
			select ${sql.ref(this.kind.state)} as state from ${this.table}
			where ${this.whose(id)} and step = ${step}`.execute(db);
		if (!rows[0]) throw new InputError('step', `There is no step ${step}.`);
		return rows[0].state;
	}

	/** Makes these the steps from a number on, in the place of whatever was there. */
	async write(
		trx: Db,
		id: Id,
		from: number,
		steps: readonly {
			readonly label: string;
			readonly state: State;
			readonly more?: Readonly<Record<string, unknown>>;
		}[]
	): Promise<void> {
		if (!steps.length) return;
		const { of, state } = this.kind;
		await sql`delete from ${this.table} where ${this.whose(id)} and step >= ${from}`.execute(trx);
		for (const [i, step] of steps.entries()) {
			const values: Record<string, unknown> = {
				[of]: id,
				step: from + i,
				label: step.label,
				[state]: JSON.stringify(step.state),
				...step.more
			};
			await sql`insert into ${this.table} (${sql.join(Object.keys(values).map((name) => sql.ref(name)))})
				values (${sql.join(Object.values(values))})`.execute(trx);
		}
	}

	/**
	 * The steps that undo needs to no step from `since` on: all before the last that is older and does not lie after the one
	 * that stands.
	 */
	private beyond(since: Date) {
		const { owner, steps, of, unless } = this.kind;
		return sql`(select owner.id, max(old.step) as step from ${sql.table(owner)} owner
			join ${sql.table(steps)} old on ${sql.ref(`old.${of}`)} = owner.id
			where old.step <= owner.step and old.created_at < ${since}
			${unless ? sql`and ${sql.ref(`owner.${unless}`)} is null` : sql``} group by owner.id)`;
	}
	/** How many steps of how many owners lie beyond a time, and whose they are. */
	async olderThan(db: Db, since: Date): Promise<{ readonly id: string; readonly steps: number }[]> {
		const { of } = this.kind;
		const { rows } = await sql<{ id: string; steps: number }>`
			select oldest.id, count(*)::int as steps from ${this.beyond(since)} oldest
			join ${this.table} steps on ${sql.ref(`steps.${of}`)} = oldest.id and steps.step < oldest.step
			group by oldest.id`.execute(db);
		return rows;
	}
	/** Drops the steps of one that lie beyond a time; how many. Where it stands, and what can be undone since, stays. */
	async forget(trx: Transaction<Database>, id: string, since: Date): Promise<number> {
		await this.lock(trx, id);
		const { numAffectedRows } = await sql`
			delete from ${this.table} steps using ${this.beyond(since)} oldest
			where ${sql.ref(`steps.${this.kind.of}`)} = oldest.id and oldest.id = ${id} and steps.step < oldest.step`.execute(trx);
		return Number(numAffectedRows);
	}

	/** Stands at a step from now on: undo, redo, or after a new one. Answers the new version. */
	async stand(trx: Transaction<Database>, id: Id, step: number): Promise<number> {
		const { rows } = await sql<{ version: number }>`
			update ${sql.table(this.kind.owner)} set step = ${step}, version = version + 1
			where id = ${id} returning version`.execute(trx);
		return rows[0]!.version;
	}

	/** A new step after the one that stands; what was undone is gone. */
	async add(
		trx: Transaction<Database>,
		id: Id,
		standing: Standing,
		label: string,
		state: State,
		more?: Readonly<Record<string, unknown>>
	): Promise<Standing> {
		const step = standing.step + 1;
		await this.write(trx, id, step, [{ label, state, ...(more && { more }) }]);
		return { step, version: await this.stand(trx, id, step) };
	}
}
