import { placedWords } from '../../../core/findings/index.ts';
import { takenName } from '../../../formats/file-names.ts';
import { aboutKind, OUT_KINDS } from '../../../formats/kinds.ts';
import { TRAVELS } from '../../../formats/job.ts';
import { PAPERS } from '../../../core/layout/paper.ts';
import { figureFindings } from '../../../workbench/findings.ts';
import { db } from '../../database.ts';
import { addDocument } from '../../documents/add.ts';
import { DOCUMENT_ORDERS, listDocuments, summaryOf } from '../../documents/list.ts';
import { openById } from '../../documents/open.ts';
import { documentRow, stepsOf } from '../../documents/rows.ts';
import { removeDocument } from '../../documents/shelf.ts';
import { moveToStep } from '../../documents/steps.ts';
import { fileOf, writeDocument } from '../../documents/writing.ts';
import { download, uploaded } from '../../http/files.ts';
import { readDocumentQuery, readOutput, readRequest } from '../../http/requests.ts';
import type { Answer, Operation } from '../operation.ts';
import { text, flag, query, after, documentId, standing } from './parts.ts';

const OUTPUT = [
	query('as', { enum: OUT_KINDS }, 'the format; its own where absent'),
	query('travel', { enum: TRAVELS }, 'how looks travel'),
	query('tables', { type: 'string', pattern: '^\\d{1,6}(,\\d{1,6})*$' }, 'only these tables, from 0, with commas'),
	query('paper', { enum: Object.keys(PAPERS) }, 'of a PDF'),
	query('across', flag, '1: the paper lies across')
];

async function wholeDocument(id: string): Promise<Answer> {
	const { version, step } = await documentRow(db(), id);
	return { body: { ...(await summaryOf(db(), id)), version, step }, version };
}

/** Documents: added, listed, searched, taken in any format. */
export const DOCUMENTS_OPERATIONS: readonly Operation[] = [
	{
		method: 'GET',
		path: '/documents',
		id: 'listDocuments',
		of: 'Documents',
		summary: 'Documents, and those that words are found in',
		needs: 'reader',
		query: [
			query('find', text, 'words that are all to be in the name, the names of worn styles, or the text of tables'),
			query('kinds', text, 'kinds of documents, with commas'),
			query('archived', flag, '1: those that are put aside'),
			query('sort', { enum: DOCUMENT_ORDERS }, 'the order'),
			query('down', flag, '1: from the end'),
			after,
			query('most', { type: 'integer', minimum: 1, maximum: 999 }, 'how many at most')
		],
		gives: { status: 200, schema: 'Documents' },
		run: async ({ url }) => {
			const { documents: items, next } = await listDocuments(db(), readDocumentQuery(url));
			return { body: { items, next } };
		}
	},
	{
		method: 'POST',
		path: '/documents',
		id: 'addDocument',
		of: 'Documents',
		summary: 'Add a document: its file is the body',
		needs: 'author',
		query: [{ ...query('name', text, 'the name of the file, with its ending'), required: true }],
		takes: 'file',
		makes: true,
		hasVersion: true,
		gives: { status: 201, schema: 'DocumentFull' },
		run: async ({ request, url }) => {
			const name = takenName(url.searchParams.get('name'), 'document.docx');
			const { id } = await addDocument(db(), name, await uploaded(request, name));
			return { ...(await wholeDocument(id)), location: `/documents/${id}` };
		}
	},
	{
		method: 'GET',
		path: '/documents/{document}',
		id: 'getDocument',
		of: 'Documents',
		summary: 'A document',
		needs: 'reader',
		hasVersion: true,
		gives: { status: 200, schema: 'DocumentFull' },
		run: (call) => wholeDocument(documentId(call))
	},
	{
		method: 'DELETE',
		path: '/documents/{document}',
		id: 'removeDocument',
		of: 'Documents',
		summary: 'Remove a document',
		needs: 'author',
		changes: true,
		gives: { status: 204 },
		run: async (call) => {
			await removeDocument(db(), documentId(call), call.seen);
			return {};
		}
	},
	{
		method: 'GET',
		path: '/documents/{document}/file',
		id: 'takeFile',
		of: 'Documents',
		summary: 'Take the file as it stands now, in any format',
		needs: 'reader',
		query: OUTPUT,
		gives: { status: 200, schema: 'file' },
		run: async (call) => {
			const { name, kind, body } = await fileOf(db(), documentId(call), readOutput(call.url));
			return { file: download(body, `${name}.${kind}`, aboutKind(kind).mediaType) };
		}
	},
	{
		method: 'GET',
		path: '/documents/{document}/account',
		id: 'getAccount',
		of: 'Documents',
		summary: 'What taking the file would change, and what reading it back finds',
		needs: 'reader',
		query: OUTPUT,
		gives: { status: 200, schema: 'Account' },
		run: async (call) => ({ body: (await writeDocument(db(), documentId(call), readOutput(call.url))).account })
	},
	{
		method: 'GET',
		path: '/documents/{document}/findings',
		id: 'getFindings',
		of: 'Documents',
		summary: 'What is to be looked at in the tables of a document',
		needs: 'reader',
		gives: { status: 200, schema: 'Findings' },
		run: async (call) => {
			const { document, state } = await openById(db(), documentId(call));
			const items = document.tables.flatMap((entry) =>
				figureFindings(entry, state.tables[entry.index]).map((finding) => ({
					...finding,
					table: entry.index,
					words: placedWords(finding)
				}))
			);
			return { body: { items } };
		}
	},
	{
		method: 'GET',
		path: '/documents/{document}/steps',
		id: 'listSteps',
		of: 'Documents',
		summary: 'What was done to a document, by whom and when',
		needs: 'reader',
		hasVersion: true,
		gives: { status: 200, schema: 'Steps' },
		run: async (call) => {
			const { id, step, version } = await documentRow(db(), documentId(call));
			return { body: { items: await stepsOf(db(), id), at: step, version }, version };
		}
	},
	{
		method: 'PUT',
		path: '/documents/{document}/step',
		id: 'goToStep',
		of: 'Documents',
		summary: 'Undo, redo: stand at any step',
		needs: 'author',
		takes: 'goToStep',
		changes: true,
		hasVersion: true,
		gives: { status: 200, schema: 'Standing' },
		run: async (call) => {
			const id = documentId(call);
			const { to } = await readRequest(call.request, 'goToStep');
			const seen = call.seen ?? (await documentRow(db(), id)).version;
			return standing(await moveToStep(db(), id, seen, to));
		}
	}
];
