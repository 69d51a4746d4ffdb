import type { Transaction } from 'kysely';
import type { AnyDocument } from '../../formats/index.ts';
import { figureFindings } from '../../workbench/findings.ts';
import type { Database } from '../database.ts';
import { wordsOf } from './open.ts';

/** How many really different looks these tables have: same fills, inks, type and lines count as one. */
function countLooks(document: AnyDocument): number {
	return new Set(
		document.tables.map(({ appearance }) => {
			const looks = [
				...new Set(
					appearance.looks.map(({ fill, family, size, ink, weight, italic }) =>
						JSON.stringify([fill, family, size, ink, weight, italic])
					)
				)
			].sort();
			const lines = [...new Set(appearance.lines.map((line) => JSON.stringify(line)))].sort();
			return JSON.stringify([looks, lines]);
		})
	).size;
}

/** What lists tell of a document by what its file says. */
export const factsOf = (document: AnyDocument) => ({
	findings: document.tables.reduce((sum, entry) => sum + figureFindings(entry).length, 0),
	looks: countLooks(document),
	words: wordsOf(document)
});

/** Lists tell of a document what the file says that it stands on now. */
export async function recordFacts(
	trx: Transaction<Database>,
	id: string,
	file: string,
	document: AnyDocument
): Promise<void> {
	await trx
		.updateTable('documents')
		.set({ ...factsOf(document), stands_on: file })
		.where('id', '=', id)
		.execute();
}
