import { sql, type Kysely } from 'kysely';

/** Files by content, documents with their steps, styles, and who wears what. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.createTable('houses')
		.addColumn('id', 'integer', (c) => c.primaryKey())
		.addColumn('name', 'text', (c) => c.notNull())
		.addColumn('inks', 'jsonb', (c) => c.notNull())
		.addColumn('type_roles', 'jsonb', (c) => c.notNull())
		.addCheckConstraint('one_house', sql`id = 1`)
		.execute();
	await db.schema
		.createTable('files')
		.addColumn('hash', 'text', (c) => c.primaryKey())
		.addColumn('bytes', 'bytea', (c) => c.notNull())
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.execute();
	await db.schema
		.createTable('styles')
		.addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
		.addColumn('name', 'text', (c) => c.notNull())
		.addColumn('based_on', 'uuid', (c) => c.references('styles.id').onDelete('restrict'))
		.addColumn('definition', 'jsonb', (c) => c.notNull())
		.addColumn('version', 'integer', (c) => c.notNull().defaultTo(1))
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.addColumn('updated_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.execute();
	await db.schema
		.createIndex('styles_name')
		.on('styles')
		.expression(sql`lower(name)`)
		.unique()
		.execute();
	await db.schema
		.createTable('documents')
		.addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
		.addColumn('name', 'text', (c) => c.notNull())
		.addColumn('kind', 'text', (c) => c.notNull())
		.addColumn('file_hash', 'text', (c) => c.notNull().references('files.hash'))
		.addColumn('tables', 'integer', (c) => c.notNull())
		.addColumn('findings', 'integer', (c) => c.notNull().defaultTo(0))
		.addColumn('looks', 'integer', (c) => c.notNull().defaultTo(0))
		.addColumn('step', 'integer', (c) => c.notNull().defaultTo(0))
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.addColumn('updated_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.execute();
	await db.schema
		.createTable('document_steps')
		.addColumn('document_id', 'uuid', (c) => c.notNull().references('documents.id').onDelete('cascade'))
		.addColumn('step', 'integer', (c) => c.notNull())
		.addColumn('label', 'text', (c) => c.notNull())
		.addColumn('state', 'jsonb', (c) => c.notNull())
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.addPrimaryKeyConstraint('document_steps_pk', ['document_id', 'step'])
		.execute();
	// What the current step of each document says, so that a style knows its tables.
	await db.schema
		.createTable('wears')
		.addColumn('document_id', 'uuid', (c) => c.notNull().references('documents.id').onDelete('cascade'))
		.addColumn('table_index', 'integer', (c) => c.notNull())
		.addColumn('style_id', 'uuid', (c) => c.notNull().references('styles.id').onDelete('restrict'))
		.addPrimaryKeyConstraint('wears_pk', ['document_id', 'table_index'])
		.execute();
	await db.schema.createIndex('wears_style').on('wears').column('style_id').execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	for (const table of ['wears', 'document_steps', 'documents', 'styles', 'files', 'houses'])
		await db.schema.dropTable(table).execute();
}
