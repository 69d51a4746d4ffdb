import { db } from '$lib/server/database.ts';
import { documentsFound } from '$lib/server/documents/list.ts';
import { styleNames } from '$lib/server/styles/styles.ts';
import type { PageServerLoad } from './$types.js';

export const load: PageServerLoad = async ({ depends }) => {
	depends('heptarch:documents');
	return { list: await documentsFound(db()), styles: await styleNames(db()) };
};
