import { findFigures } from '../core/findings/figures.ts';
import type { Finding } from '../core/findings/finding.ts';
import type { DecimalMark } from '../core/values/parse.ts';
import type { DocumentTable } from '../formats/document.ts';
import type { TableState } from './state.ts';
import { stateTable } from './table.ts';

const known = new WeakMap<DocumentTable, { key: string; findings: readonly Finding[] }>();

/** What is to be looked at in the figures of a document's table as a person corrected it; asked again, the same. */
export function figureFindings(entry: DocumentTable, own: TableState = {}, usual?: DecimalMark): readonly Finding[] {
	const { roles, kinds, mark } = own;
	const key = JSON.stringify([roles, kinds, mark, usual]);
	let found = known.get(entry);
	if (found?.key !== key) {
		const table = stateTable(entry, { roles, kinds, mark } as TableState);
		known.set(entry, (found = { key, findings: findFigures(table, usual) }));
	}
	return found.findings;
}
