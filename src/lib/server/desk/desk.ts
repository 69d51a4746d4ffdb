import { sql, type Kysely } from 'kysely';
import type { Thumbnail } from '../../workbench/thumbnail.ts';
import type { Database } from '../database.ts';
import { listRuns } from '../runs/runs.ts';
import { listProposed } from '../styles/proposals.ts';
import { listStyles } from '../styles/styles.ts';
import { thumbnailsOf } from './thumbnails.ts';

type Db = Kysely<Database>;

/** So many documents are shown with a picture, and so many lines of anything else. */
const RECENT = 6;
const LINES = 6;

/** A document that was worked on lately. */
export interface RecentDocument {
	readonly id: string;
	readonly name: string;
	readonly kind: string;
	readonly tables: number;
	readonly styled: number;
	/** The newest of what was done to it, and when (ISO 8601). */
	readonly label: string;
	readonly when: string;
	readonly picture: Thumbnail | null;
}

/** Everything that the Desk shows: what was worked on, what waits, what is under way, what is new. */
export async function loadDesk(db: Db) {
	const recent = await recentDocuments(db);
	const styles = (await listStyles(db)).filter(({ aside }) => !aside);
	const { documents } = await db
		.selectFrom('documents')
		.select(({ fn }) => fn.countAll<string>().as('documents'))
		.where('removed_at', 'is', null)
		.executeTakeFirstOrThrow();
	return {
		documents: Number(documents),
		styles: styles.length,
		worn: styles.some(({ worn }) => worn.tables > 0),
		recent,
		unpublished: styles
			.filter(({ unpublished }) => unpublished)
			.map(({ id, definition, worn }) => ({ id, name: definition.name, tables: worn.tables })),
		proposed: await listProposed(db),
		...(await documentsWaiting(db)),
		runs: await runsToSee(db),
		news: await newsOf(db)
	};
}

async function recentDocuments(db: Db): Promise<RecentDocument[]> {
	const rows = await db
		.selectFrom('documents')
		.innerJoin('document_steps', (join) =>
			join.onRef('document_steps.document_id', '=', 'documents.id').onRef('document_steps.step', '=', 'documents.step')
		)
		.select(['id', 'name', 'kind', 'tables', 'documents.updated_at', 'document_steps.label'])
		.select(({ selectFrom }) =>
			selectFrom('wears')
				.whereRef('wears.document_id', '=', 'documents.id')
				.select(({ fn }) => fn.countAll<string>().as('count'))
				.as('styled')
		)
		.where('removed_at', 'is', null)
		.where('archived_at', 'is', null)
		.orderBy('documents.updated_at', 'desc')
		.orderBy('name')
		.limit(RECENT)
		.execute();
	const pictures = await thumbnailsOf(
		db,
		rows.map(({ id }) => id)
	);
	return rows.map(({ id, name, kind, tables, styled, label, updated_at }) => ({
		id,
		name,
		kind,
		tables,
		styled: Number(styled),
		label,
		when: updated_at.toISOString(),
		picture: pictures.get(id) ?? null
	}));
}

/** Documents that somebody should look at: with findings, and drawings whose schedules are behind their objects. */
async function documentsWaiting(db: Db) {
	const waiting = db
		.selectFrom('documents')
		.select(['id', 'name', 'kind', 'findings', 'behind'])
		.where('removed_at', 'is', null)
		.where('archived_at', 'is', null)
		.limit(LINES);
	return {
		findings: await waiting.where('findings', '>', 0).orderBy('findings', 'desc').execute(),
		behind: await waiting.where('behind', '>', 0).orderBy('behind', 'desc').execute()
	};
}

/** Runs that are under way, and those that ended lately with something to look at. */
async function runsToSee(db: Db) {
	const runs = await listRuns(db);
	return runs
		.map(({ id, style, state, startedAt, items }) => ({
			id,
			style,
			state,
			startedAt,
			all: items.length,
			done: items.filter((item) => item.state !== 'waiting' && item.state !== 'applied').length,
			failed: items.filter((item) => item.state === 'failed').length
		}))
		.filter(({ state, failed }, i) => state === 'running' || (i < LINES && failed > 0))
		.slice(0, LINES);
}

/** One line of what is new in the house. */
export interface News {
	readonly what: 'document' | 'style' | 'edition';
	readonly id: string;
	readonly name: string;
	readonly kind: string | null;
	readonly words: string;
	readonly when: string;
}

/** What came into the house last: documents, styles, editions; newest first. */
async function newsOf(db: Db): Promise<News[]> {
	const { rows } = await sql<Omit<News, 'when'> & { when: Date }>`
		select * from (
			select 'document' as what, id, name, kind, 'added' as words, created_at as "when" from documents
			where removed_at is null and archived_at is null
			union all
			select 'style', s.id, s.name, null, 'made', t.created_at from styles s
			join style_steps t on t.style_id = s.id and t.step = 0 where s.archived_at is null
			union all
			select 'edition', s.id, s.name, null, 'edition ' || e.number || ' published', e.created_at from editions e
			join styles s on s.id = e.style_id where s.archived_at is null
		) as news order by "when" desc, name limit ${LINES}`.execute(db);
	return rows.map((row) => ({ ...row, when: row.when.toISOString() }));
}
