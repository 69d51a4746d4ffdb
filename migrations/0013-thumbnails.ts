import type { Kysely } from 'kysely';

/** How a document's tables look, small, worked out once for each version of it. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.createTable('thumbnails')
		.addColumn('document_id', 'uuid', (c) => c.primaryKey().references('documents.id').onDelete('cascade'))
		.addColumn('version', 'integer', (c) => c.notNull())
		.addColumn('picture', 'jsonb')
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.dropTable('thumbnails').execute();
}
