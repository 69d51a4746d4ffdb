import type { Kysely } from 'kysely';
import type { Database } from '../src/lib/server/database.ts';
import { addDocument } from '../src/lib/server/documents/add.ts';
import { importStyle } from '../src/lib/server/styles/styles.ts';
import { handbook } from './documents/handbook.ts';
import { seasonReport } from './documents/season-report.ts';
import { seedList } from './documents/seed-list.ts';
import { fernBed, lighting } from './drawings/index.ts';
import { seasonReportHtml, seasonReportOdt } from './documents/twins.ts';
import { keepStarter } from '../src/lib/server/tables/tables.ts';
import { DEMO_STARTERS } from './starters.ts';
import { DEMO_STYLES } from './styles/index.ts';

const DEMO_HOUSE = 'Thornmere Botanic Garden';

/** Loads the demo house where there is neither a style nor a document yet; tells whether it did. */
export async function loadDemo(db: Kysely<Database>): Promise<boolean> {
	const style = await db.selectFrom('styles').select('id').executeTakeFirst();
	const document = await db.selectFrom('documents').select('id').executeTakeFirst();
	if (style || document) return false;
	await db.updateTable('houses').set({ name: DEMO_HOUSE }).execute();
	for (const definition of DEMO_STYLES)
		await importStyle(db, { ...definition, bases: DEMO_STYLES.filter(({ name }) => name === definition.basedOn) });
	await addDocument(db, 'Seed exchange list.csv', seedList());
	await addDocument(db, 'Season report 2031, open text.odt', await seasonReportOdt());
	await addDocument(db, 'Season report 2031, web page.html', await seasonReportHtml());
	await addDocument(db, 'Path lighting.svg', await lighting());
	await addDocument(db, 'Fern bed, planting plan.svg', await fernBed());
	await addDocument(db, 'Volunteers’ handbook.docx', await handbook());
	await addDocument(db, 'Season report 2031.docx', await seasonReport());
	const styles = await db.selectFrom('styles').select(['id', 'name']).execute();
	for (const { style: name, ...starter } of DEMO_STARTERS) {
		const worn = styles.find((one) => one.name === name);
		await keepStarter(db, { ...starter, wears: worn ? { style: worn.id } : {} });
	}
	return true;
}
