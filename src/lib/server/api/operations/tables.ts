import { InputError } from '../../../core/errors.ts';
import { isLeftOut } from '../../../core/recognise/purpose/kinds.ts';
import { checkLocale, figuresOf } from '../../../workbench/table-figures.ts';
import { tableRead } from '../../../workbench/table-read.ts';
import { purposeOf, stateTable } from '../../../workbench/table.ts';
import type { TableState } from '../../../workbench/state.ts';
import { db } from '../../database.ts';
import { openById } from '../../documents/open.ts';
import { addStep } from '../../documents/steps.ts';
import { NotFoundError } from '../../http/answers.ts';
import { readNumber, readRequest } from '../../http/requests.ts';
import { loadStyle } from '../../styles/styles.ts';
import type { Answer, Call, Operation } from '../operation.ts';
import { documentId, query, standing, text } from './parts.ts';

/** A document's table and what was decided of it. Throws NotFoundError. */
async function tableIn(call: Call) {
	const { found, document, state } = await openById(db(), documentId(call));
	const index = readNumber(call.params.table!, 'table');
	const entry = document.tables[index];
	if (!entry) throw new NotFoundError(`There is no table ${index}: the document has ${document.tables.length}.`);
	return { found, entry, own: state.tables[index] ?? {}, index };
}

/** What is left of a state once something of it is said anew; null is as recognised. */
const changed = (own: TableState, change: object): TableState =>
	Object.fromEntries(Object.entries({ ...own, ...change }).filter(([, value]) => value !== null));

async function applyStyle(call: Call): Promise<Answer> {
	const id = documentId(call);
	const { style, edition, tables, partsOff, carry } = await readRequest(call.request, 'applyStyle');
	const { found, document, state } = await openById(db(), id);
	const chosen =
		tables ??
		document.tables.filter((entry) => !isLeftOut(purposeOf(entry, state.tables[entry.index]))).map((t) => t.index);
	if (!chosen.length) throw new InputError('no-table', 'The document has no table to give the style to.');
	const { definition } = await loadStyle(db(), style);
	const worn = { style, edition: edition ?? null, pinned: null, cleared: null };
	const now = await addStep(
		db(),
		id,
		call.seen ?? found.version,
		`${definition.name} on ${chosen.length === 1 ? `table ${chosen[0]! + 1}` : `${chosen.length} tables`}`,
		Object.fromEntries(
			chosen.map((index) => [
				index,
				changed(state.tables[index] ?? {}, { ...worn, ...(partsOff && { partsOff }), ...(carry && { carry }) })
			])
		)
	);
	return standing(now);
}

/** Tables of documents: what they are, what they wear, what they amount to. */
export const TABLES_OPERATIONS: readonly Operation[] = [
	{
		method: 'POST',
		path: '/documents/{document}/apply',
		id: 'applyStyle',
		of: 'Tables',
		summary: 'Give a style to tables of a document; to all that hold data where none are said',
		needs: 'author',
		takes: 'applyStyle',
		changes: true,
		hasVersion: true,
		gives: { status: 200, schema: 'Standing' },
		run: applyStyle
	},
	{
		method: 'GET',
		path: '/documents/{document}/tables',
		id: 'listTables',
		of: 'Tables',
		summary: 'The tables of a document, and what was decided of each',
		needs: 'reader',
		hasVersion: true,
		gives: { status: 200, schema: 'Tables' },
		run: async (call) => {
			const { found, document, state } = await openById(db(), documentId(call));
			const items = document.tables.map((entry) => {
				const own = state.tables[entry.index] ?? {};
				const { rows, columns } = stateTable(entry, own);
				const title = entry.place.caption ?? `table ${entry.index + 1}`;
				return { index: entry.index, title, rows, columns, purpose: purposeOf(entry, own), state: own };
			});
			return { body: { items, version: found.version }, version: found.version };
		}
	},
	{
		method: 'GET',
		path: '/documents/{document}/tables/{table}',
		id: 'getTable',
		of: 'Tables',
		summary: 'A table as a table file: cells, roles of rows, kinds of columns, reasons, findings',
		needs: 'reader',
		hasVersion: true,
		gives: { status: 200, schema: 'TableFull' },
		run: async (call) => {
			const { found, entry, own } = await tableIn(call);
			return { body: { table: tableRead(entry, own), state: own }, version: found.version };
		}
	},
	{
		method: 'PATCH',
		path: '/documents/{document}/tables/{table}',
		id: 'changeTable',
		of: 'Tables',
		summary: 'Say what a table is and wears: roles, kinds, style, parts in use, touches',
		more: 'A merge patch (RFC 7396): what is absent stays as it is, null is as recognised.',
		needs: 'author',
		takes: 'changeTable',
		changes: true,
		hasVersion: true,
		gives: { status: 200, schema: 'Standing' },
		run: async (call) => {
			const { found, own, index } = await tableIn(call);
			const change = await readRequest(call.request, 'changeTable');
			const now = await addStep(db(), found.id, call.seen ?? found.version, `table ${index + 1}, by ${call.who.name}`, {
				[index]: changed(own, change)
			});
			return standing(now);
		}
	},
	{
		method: 'GET',
		path: '/documents/{document}/tables/{table}/figures',
		id: 'getFigures',
		of: 'Tables',
		summary: 'What the cells of a table amount to, and which typed sums are off',
		needs: 'reader',
		query: [query('locale', text, 'BCP 47, such as sv-SE: which money a sign means')],
		gives: { status: 200, schema: 'Figures' },
		run: async (call) => {
			const { entry, own } = await tableIn(call);
			const locale = call.url.searchParams.get('locale') ?? undefined;
			if (locale !== undefined) checkLocale(locale);
			return { body: figuresOf({ ...entry, table: stateTable(entry, own) }, locale) };
		}
	}
];
