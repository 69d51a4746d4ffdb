import { sql, type Kysely } from 'kysely';

/**
 * What was changed together is taken back together: a step of a style names what it changed in others. What inks and type
 * roles of the house were called before, and what was renamed in each of its steps.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('style_steps').addColumn('along', 'jsonb').execute();
	await db.schema
		.alterTable('houses')
		.addColumn('former', 'jsonb', (c) => c.notNull().defaultTo(sql`'{"inks":{},"typeRoles":{}}'`))
		.execute();
	await db.schema
		.alterTable('house_steps')
		.addColumn('renamed', 'jsonb', (c) => c.notNull().defaultTo(sql`'{}'`))
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('house_steps').dropColumn('renamed').execute();
	await db.schema.alterTable('houses').dropColumn('former').execute();
	await db.schema.alterTable('style_steps').dropColumn('along').execute();
}
