import { tableToFile } from '../core/table/file.ts';
import { withFigures } from '../core/work/file.ts';
import type { DocumentTable } from '../formats/document.ts';
import { figureFindings } from './findings.ts';
import type { TableState } from './state.ts';
import { stateTable } from './table.ts';

/**
 * A table of a document as a table file, with where it stands, what was recognised of it and why, and its findings; as a person
 * corrected it where a state is given.
 */
export function tableRead(entry: DocumentTable, own?: TableState) {
	const { recognition, place, index } = entry;
	const table = own ? stateTable(entry, own) : entry.table;
	const { is: purpose, confidence: sure, reasons: why } = recognition.purpose;
	const about = {
		number: index + 1,
		place,
		size: { rows: table.rows, columns: table.columns },
		wears: entry.carried?.style ?? null,
		fileStyle: entry.wornName,
		reasons: {
			rows: recognition.rows.map(({ is, confidence, reasons }) => ({ role: is, confidence, reasons })),
			columns: recognition.columns.map(({ is, name, confidence, reasons }) => ({
				kind: is,
				name,
				confidence,
				reasons
			})),
			firstColumns: recognition.firstColumns.reasons,
			lastColumns: recognition.lastColumns.reasons
		},
		findings: figureFindings(entry, own)
	};
	const file = { ...tableToFile(table, about), purpose: { purpose, sure, why } };
	return entry.work ? withFigures(file, entry.work) : file;
}
