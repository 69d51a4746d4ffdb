import { sql, type Kysely } from 'kysely';
import { varyingSetting } from '../../core/census/settings.ts';
import { InputError } from '../../core/errors.ts';
import { policyRuleNamed, wantedWords, type WantedRule } from '../../core/policy/policy.ts';
import type { TableState } from '../../workbench/state.ts';
import { indicesAmong, parsed, type Among } from '../census/among.ts';
import type { Database, RunItemState, RunSettings } from '../database.ts';
import { openById } from '../documents/open.ts';
import { stateAt, type Db } from '../documents/rows.ts';
import { nextStep } from '../documents/steps.ts';
import { writeDocument } from '../documents/writing.ts';
import { loadHouse } from '../house/house.ts';
import { BY } from '../history.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Acting } from '../people/acting.ts';
import { announce } from '../programs/webhooks.ts';
import { editionToWear } from '../styles/editions.ts';
import { deedOf } from './deeds/index.ts';

export interface RunItem {
	readonly document: string;
	readonly name: string;
	readonly kind: string;
	readonly state: RunItemState;
	readonly tables: number;
	readonly differences: number;
	readonly reason: string | null;
}

export interface Run {
	readonly id: string;
	readonly style: string;
	readonly edition: number | null;
	/** Whoever started it: their name, and their id. */
	readonly by: string | null;
	readonly byPerson: string | null;
	readonly startedAt: string;
	readonly state: 'running' | 'stopped' | 'done' | 'undone';
	readonly items: readonly RunItem[];
}

export interface DocumentOfRun {
	readonly run: string;
	readonly document: string;
}
/** A document to work on, in whose house and for whom, as it travels through the queue. */
export interface RunJob extends DocumentOfRun, Acting {}
/** What a run is to do with the tables of documents: one of a style, a setting brought to a value, a rule kept. */
export interface RunWish extends Pick<TableState, 'partsOff' | 'carry'> {
	readonly style?: string;
	readonly bring?: { readonly setting: string; readonly value: string };
	/** The name of a rule of the house's policy. */
	readonly mend?: string;
	/** For these documents; for all that have tables among those that are meant where absent. */
	readonly documents?: readonly string[];
	/** Only for these tables. */
	readonly among?: Among;
	/** Of documents of this kind. */
	readonly kind?: string;
	/** Forms and layout tables, too. */
	readonly takesAll?: boolean;
}

/** What a run is called in which drawings are read again. */
const REREAD_WORDS = 'Schedules read again';
/** Hands jobs to the queue. */
export type Send = (jobs: readonly RunJob[]) => Promise<void>;

/** A run as it is to be stored: what it does, and to which tables of which documents. */
export async function plannedRun(db: Db, wish: RunWish) {
	const { style, bring, mend, partsOff, carry, takesAll } = wish;
	if ([style, bring, mend].filter((one) => one !== undefined).length !== 1)
		throw new InputError(
			'request',
			'A run does one thing: it gives a style, brings a setting to a value, or keeps a rule.'
		);
	const settings: RunSettings = {
		...(partsOff && { partsOff }),
		...(carry && { carry }),
		...(takesAll && { takesAll }),
		...(bring && { bring: { setting: bring.setting, value: parsed(bring.value) } }),
		...(mend !== undefined && { mend: await ruleOf(db, mend) })
	};
	return { name: await nameOf(db, wish, settings), settings, ...(await tablesMeant(db, wish)) };
}

/** What a run is called. Throws where there is no such style or setting. */
async function nameOf(db: Db, { style, bring }: RunWish, { mend }: RunSettings): Promise<string> {
	if (style !== undefined) {
		const known = await db.selectFrom('styles').select('name').where('id', '=', style).executeTakeFirst();
		if (!known) throw new NotFoundError('This style is no longer in the Stylebook.');
		return known.name;
	}
	if (mend) return `policy: ${wantedWords(mend).replace(/\.$/, '')}`;
	const setting = varyingSetting(bring!.setting);
	if (!setting) throw new InputError('request', `There is no setting “${bring!.setting}”.`, '/bring/setting');
	// What no table shows is no value of it: whatever else somebody sends is not kept as a touch.
	const known = await db
		.selectFrom('census_values')
		.select('id')
		.where('setting', '=', bring!.setting)
		.where('value', '=', bring!.value)
		.executeTakeFirst();
	const value = parsed(bring!.value);
	if (!known || !setting.canBring(value))
		throw new InputError('request', `No table shows the ${setting.words} so that others could.`, '/bring/value');
	return `${setting.words}: ${setting.say(value)}`;
}

/** A rule as the house has it. Throws InputError where it has none of that name. */
async function ruleOf(db: Db, name: string): Promise<WantedRule> {
	const { policy } = await loadHouse(db);
	const rule = policy?.rules.find((one) => one.rule === name);
	if (!rule) throw new InputError('request', `The house’s policy has no rule “${name}”.`, '/mend');
	const definition = policyRuleNamed(name)!;
	if (!definition.mend)
		throw new InputError('request', `Only a person can put right what “${wantedWords(rule)}” flags.`, '/mend');
	if (definition.renamed)
		throw new InputError('request', 'This rule is kept by a run that gives a style: say which.', '/mend');
	return rule;
}

/** The documents of a run, and where only some of their tables are meant, those. */
async function tablesMeant(db: Db, { documents, among, kind }: RunWish) {
	if (!among) {
		if (!documents?.length) throw new InputError('request', 'Choose the documents of the run first.', '/documents');
		return { documents: [...new Set(documents)], only: undefined };
	}
	const only = await indicesAmong(db, { documents, kind }, among);
	if (!only.size)
		throw new InputError('request', 'There is no such table any more, so there is nothing to do.', '/among');
	return { documents: [...only.keys()], only };
}

/** Begins a run. What is to do is stored before it is sent. */
export async function startRun(db: Kysely<Database>, wish: RunWish, send: Send): Promise<{ id: string }> {
	const { name, settings, documents, only } = await plannedRun(db, wish);
	const { style } = wish;
	const edition =
		style === undefined ? null : (await db.transaction().execute((trx) => editionToWear(trx, style))).number;
	return beginRun(
		db,
		{ style_id: style ?? null, style_name: name, edition, settings: JSON.stringify(settings) },
		documents,
		send,
		only
	);
}

/** Begins a run in which every schedule of some drawings is read again. */
export async function startReread(
	db: Kysely<Database>,
	documents: readonly string[],
	send: Send
): Promise<{ id: string }> {
	if (documents.length === 0) throw new InputError('request', 'Choose the drawings of the run first.', '/documents');
	const settings = JSON.stringify({ reread: true });
	return beginRun(db, { style_id: null, style_name: REREAD_WORDS, edition: null, settings }, documents, send);
}

/** More than so many rows at once are more parameters than a statement may have. */
const AT_ONCE = 5_000;

/** What of a run goes along with each of its documents. */
const OF_JOB = ['runs.id', 'runs.house_id', 'runs.made_by'] as const;
const jobOf = (
	{ id, house_id, made_by }: { readonly id: string; readonly house_id: string; readonly made_by: string | null },
	document: string
): RunJob => ({ run: id, document, house: house_id, person: made_by });

async function beginRun(
	db: Kysely<Database>,
	values: { style_id: string | null; style_name: string; edition: number | null; settings: string },
	documents: readonly string[],
	send: Send,
	only?: ReadonlyMap<string, number[]>
): Promise<{ id: string }> {
	const chosen = [...new Set(documents)];
	const run = await db.transaction().execute(async (trx) => {
		const run = await trx.insertInto('runs').values(values).returning(OF_JOB).executeTakeFirstOrThrow();
		const here = await trx
			.selectFrom('documents')
			.select('id')
			.where('id', '=', sql<string>`any(${chosen}::uuid[])`)
			.where('removed_at', 'is', null)
			.execute();
		if (here.length < chosen.length) throw new NotFoundError('One of the documents is no longer here.');
		for (let from = 0; from < chosen.length; from += AT_ONCE)
			await trx
				.insertInto('run_items')
				.values(
					chosen.slice(from, from + AT_ONCE).map((document) => ({
						run_id: run.id,
						document_id: document,
						before: null,
						chosen: only?.get(document) ?? null
					}))
				)
				.execute();
		return run;
	});
	await send(chosen.map((document) => jobOf(run, document)));
	return { id: run.id };
}

/**
 * Works on one document of a run. Its step and the note that it was made are one transaction, so that a job that comes
 * twice, or again after a crash, changes nothing twice and nothing by half.
 */
export async function workOn(db: Kysely<Database>, job: DocumentOfRun, isAgain = false): Promise<void> {
	const { run, document } = job;
	try {
		if (!isAgain && (await begun(db, job)) > MOST_ATTEMPTS) return await failed(db, job, TOO_MUCH);
		const isApplied = await db.transaction().execute(async (trx) => {
			const found = await trx
				.selectFrom('run_items')
				.innerJoin('runs', 'runs.id', 'run_items.run_id')
				.select([
					'run_items.state',
					'run_items.chosen',
					'runs.stopped_at',
					'runs.undone_at',
					'runs.style_id',
					'runs.style_name',
					'runs.edition',
					'runs.settings'
				])
				.where('run_id', '=', run)
				.where('document_id', '=', document)
				.forUpdate('run_items')
				.executeTakeFirst();
			if (!found || found.state === 'done' || found.state === 'failed') return false;
			if (found.state === 'applied') return true;
			if (found.stopped_at || found.undone_at) return false;
			const deed = deedOf(found.settings);
			// Nobody changes the document between reading its state and adding to it.
			await trx.selectFrom('documents').select('id').where('id', '=', document).forUpdate().execute();
			const { name, document: opened, state } = await openById(trx, document);
			const of = { id: document, name, document: opened, state, only: found.chosen };
			const { change, before, tables } = await deed.do(trx, found, of);
			if (change)
				await nextStep(trx, document, `run: ${deed.label(found)}`, change.tables, {
					...(change.drawing && { drawing: change.drawing })
				});
			await trx
				.updateTable('run_items')
				.set({ state: 'applied', before: JSON.stringify(before), tables })
				.where('run_id', '=', run)
				.where('document_id', '=', document)
				.execute();
			return true;
		});
		if (!isApplied) return;
		const { account } = await writeDocument(db, document);
		const differences = account.tables.reduce((sum, table) => sum + table.differences.length, 0);
		await openItem(db, job)
			.set({ state: 'done', differences, finished_at: sql<Date>`now()` })
			.execute();
		await tellWhereDone(db, run);
	} catch (error) {
		if (!(error instanceof InputError) && !(error instanceof NotFoundError)) throw error;
		await failed(db, job, error.message);
	}
}

/** Work on a document that was begun so often, and never came to an end, ended the worker itself each time. */
const MOST_ATTEMPTS = 3;
const TOO_MUCH =
	'Working on this document took more memory or computing time than a job may take, each time that it was tried.';

const openItem = (db: Kysely<Database>, { run, document }: DocumentOfRun) =>
	db
		.updateTable('run_items')
		.where('run_id', '=', run)
		.where('document_id', '=', document)
		.where('state', 'in', ['waiting', 'applied']);

/** Counts that work on a document begins; returns how often it has. */
async function begun(db: Kysely<Database>, job: DocumentOfRun): Promise<number> {
	const counted = await openItem(db, job)
		.set({ attempts: sql<number>`attempts + 1` })
		.returning('attempts')
		.executeTakeFirst();
	return counted?.attempts ?? 0;
}

/** Ends work on a document of a run that cannot be done, with the reason. */
export async function failed(db: Kysely<Database>, job: DocumentOfRun, reason: string): Promise<void> {
	await openItem(db, job)
		.set({ state: 'failed', reason, finished_at: sql<Date>`now()` })
		.execute();
	await tellWhereDone(db, job.run);
}

/** Announces that a run has come to its end, once, where none of its documents is still to be worked on. */
async function tellWhereDone(db: Kysely<Database>, run: string): Promise<void> {
	const { rows } = await sql<{ style: string; documents: number; failed: number; open: number }>`
		select r.style_name as style, count(*)::int as documents,
			(count(*) filter (where i.state = 'failed'))::int as failed,
			(count(*) filter (where i.state in ('waiting', 'applied')))::int as open
		from runs r join run_items i on i.run_id = r.id where r.id = ${run} group by r.style_name`.execute(db);
	const [end] = rows;
	if (!end || end.open) return;
	const { style, documents, failed } = end;
	await announce(db, 'run.done', run, { run, style, documents, failed });
}

/** Documents of runs that nobody has worked on for a while: their worker was lost. Sent again; coming twice does no harm. */
export async function sendLost(db: Kysely<Database>, send: Send, seconds = 60): Promise<number> {
	const lost = await db
		.updateTable('run_items')
		.from('runs')
		.whereRef('runs.id', '=', 'run_items.run_id')
		.where('runs.stopped_at', 'is', null)
		.where('runs.undone_at', 'is', null)
		.where('run_items.state', 'in', ['waiting', 'applied'])
		.where('run_items.asked_at', '<', sql<Date>`now() - make_interval(secs => ${seconds})`)
		.set({ asked_at: sql<Date>`now()` })
		.returning([...OF_JOB, 'run_items.document_id'])
		.execute();
	if (lost.length) await send(lost.map((item) => jobOf(item, item.document_id)));
	return lost.length;
}

/** Whose run it is; null where nobody said. Throws NotFoundError. */
export const runBy = async (db: Kysely<Database>, id: string): Promise<string | null> =>
	(await existing(db, id)).made_by;

async function existing(db: Kysely<Database>, id: string) {
	const run = await db.selectFrom('runs').selectAll().where('id', '=', id).executeTakeFirst();
	if (!run) throw new NotFoundError('This run is no longer here.');
	return run;
}

/** Stops a run: documents that were not begun stay as they are. */
export async function stopRun(db: Kysely<Database>, id: string): Promise<void> {
	await existing(db, id);
	await db
		.updateTable('runs')
		.set({ stopped_at: sql<Date>`now()` })
		.where('id', '=', id)
		.where('undone_at', 'is', null)
		.execute();
}

/** Goes on with a run that was stopped. */
export async function resumeRun(db: Kysely<Database>, id: string, send: Send): Promise<void> {
	const run = await existing(db, id);
	await db.updateTable('runs').set({ stopped_at: null }).where('id', '=', id).where('undone_at', 'is', null).execute();
	const waiting = await db
		.updateTable('run_items')
		.set({ asked_at: sql<Date>`now()`, attempts: 0 })
		.where('run_id', '=', id)
		.where('state', 'in', ['waiting', 'applied'])
		.returning('document_id')
		.execute();
	await send(waiting.map(({ document_id }) => jobOf(run, document_id)));
}

/**
 * Takes a whole run back: every table that still wears what the run gave it wears again what it wore before, as one more
 * step of its document. What people changed since stays. All or none.
 */
export async function undoRun(db: Kysely<Database>, id: string): Promise<{ documents: number }> {
	await existing(db, id);
	return db.transaction().execute(async (trx) => {
		const run = await trx.selectFrom('runs').selectAll().where('id', '=', id).forUpdate().executeTakeFirstOrThrow();
		if (run.undone_at) throw new InputError('request', 'This run was taken back already.');
		const items = await trx
			.selectFrom('run_items')
			.innerJoin('documents', 'documents.id', 'run_items.document_id')
			.select(['document_id', 'before', 'documents.step'])
			.where('run_id', '=', id)
			.where('before', 'is not', null)
			.where('removed_at', 'is', null)
			.forUpdate()
			.execute();
		let documents = 0;
		for (const { document_id, before, step } of items) {
			const back = deedOf(run.settings).back(await stateAt(trx, document_id, step), before!, run);
			if (!back) continue;
			documents++;
			await nextStep(trx, document_id, `run taken back: ${run.style_name}`, back.tables, {
				...(back.drawing && { drawing: back.drawing })
			});
		}
		await trx
			.updateTable('runs')
			.set({ undone_at: sql<Date>`now()` })
			.where('id', '=', id)
			.execute();
		return { documents };
	});
}

/** All runs with their documents, newest first. */
export async function listRuns(db: Kysely<Database>, only?: string): Promise<Run[]> {
	const runs = await db
		.selectFrom('runs')
		.selectAll()
		.select(BY.as('by'))
		.$if(only !== undefined, (query) => query.where('id', '=', only!))
		.orderBy('created_at', 'desc')
		.limit(50)
		.execute();
	if (!runs.length) return [];
	const items = await db
		.selectFrom('run_items')
		.innerJoin('documents', 'documents.id', 'run_items.document_id')
		.select(['run_id', 'document_id', 'name', 'kind', 'state', 'run_items.tables', 'differences', 'reason'])
		.where(
			'run_id',
			'in',
			runs.map(({ id }) => id)
		)
		.orderBy('name')
		.execute();
	return runs.map(({ id, style_name, edition, by, made_by, created_at, stopped_at, undone_at }): Run => {
		const own = items.filter(({ run_id }) => run_id === id);
		const isOpen = own.some(({ state }) => state === 'waiting' || state === 'applied');
		return {
			id,
			style: style_name,
			edition,
			by,
			byPerson: made_by,
			startedAt: created_at.toISOString(),
			state: undone_at ? 'undone' : !isOpen ? 'done' : stopped_at ? 'stopped' : 'running',
			items: own.map(({ document_id, name, kind, state, tables, differences, reason }) => ({
				document: document_id,
				name,
				kind,
				state,
				tables,
				differences,
				reason
			}))
		};
	});
}
