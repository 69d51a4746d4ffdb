import { sql, type Kysely } from 'kysely';

/** Steps of styles and of the house for undo and redo, editions of styles, who wears which, and roll-outs. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.alterTable('houses')
		.addColumn('locale', 'text', (c) => c.notNull().defaultTo('en-GB'))
		.addColumn('version', 'integer', (c) => c.notNull().defaultTo(1))
		.addColumn('step', 'integer', (c) => c.notNull().defaultTo(0))
		.execute();
	await db.schema
		.createTable('house_steps')
		.addColumn('step', 'integer', (c) => c.primaryKey())
		.addColumn('label', 'text', (c) => c.notNull())
		.addColumn('state', 'jsonb', (c) => c.notNull())
		// The styles that the step changed along with the house, as they were and as they became, by id.
		.addColumn('styles', 'jsonb', (c) => c.notNull().defaultTo(sql`'{}'::jsonb`))
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.execute();
	await db.schema
		.alterTable('styles')
		.addColumn('step', 'integer', (c) => c.notNull().defaultTo(0))
		// Which tables stand on its specimen sheet: keys; null where nobody chose.
		.addColumn('specimens', 'jsonb')
		.execute();
	await db.schema
		.createTable('style_steps')
		.addColumn('style_id', 'uuid', (c) => c.notNull().references('styles.id').onDelete('cascade'))
		.addColumn('step', 'integer', (c) => c.notNull())
		.addColumn('label', 'text', (c) => c.notNull())
		.addColumn('definition', 'jsonb', (c) => c.notNull())
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.addPrimaryKeyConstraint('style_steps_pk', ['style_id', 'step'])
		.execute();
	await sql`insert into style_steps (style_id, step, label, definition) select id, 0, 'as it was', definition from styles`.execute(
		db
	);
	await db.schema
		.createTable('editions')
		.addColumn('style_id', 'uuid', (c) => c.notNull().references('styles.id').onDelete('cascade'))
		.addColumn('number', 'integer', (c) => c.notNull())
		.addColumn('note', 'text', (c) => c.notNull())
		// The draft as it was, for restoring.
		.addColumn('definition', 'jsonb', (c) => c.notNull())
		// With its bases, inks and type roles: nothing that changes later changes it.
		.addColumn('frozen', 'jsonb', (c) => c.notNull())
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.addPrimaryKeyConstraint('editions_pk', ['style_id', 'number'])
		.execute();
	await db.schema.alterTable('wears').addColumn('edition', 'integer').execute();
	await db.schema
		.createTable('rollouts')
		.addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
		.addColumn('style_id', 'uuid', (c) => c.notNull().references('styles.id').onDelete('cascade'))
		.addColumn('edition', 'integer', (c) => c.notNull())
		// By document: the tables that took the edition and what they wore before.
		.addColumn('documents', 'jsonb', (c) => c.notNull())
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.addColumn('undone_at', 'timestamptz')
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	for (const table of ['rollouts', 'editions', 'style_steps', 'house_steps'])
		await db.schema.dropTable(table).execute();
	await db.schema.alterTable('wears').dropColumn('edition').execute();
	await db.schema.alterTable('styles').dropColumn('step').dropColumn('specimens').execute();
	await db.schema.alterTable('houses').dropColumn('locale').dropColumn('version').dropColumn('step').execute();
}
