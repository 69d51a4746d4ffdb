import { InputError } from '../../core/errors.ts';
import { inkOf, typeRoleOf } from '../../core/house.ts';
import { isLeftOut } from '../../core/recognise/purpose/kinds.ts';
import { placedWords } from '../../core/findings/index.ts';
import { same } from '../../core/merge.ts';
import type { Style } from '../../core/style/types.ts';
import { checkStyle } from '../../core/style/validate.ts';
import { takenName } from '../../formats/file-names.ts';
import { aboutKind, OPENED, OUT_KINDS } from '../../formats/kinds.ts';
import { TRAVELS } from '../../formats/job.ts';
import { PAPERS } from '../../core/layout/paper.ts';
import { may } from '../../workbench/roles.ts';
import { checkLocale, figuresOf } from '../../workbench/table-figures.ts';
import { figureFindings } from '../../workbench/findings.ts';
import { tableRead } from '../../workbench/table-read.ts';
import { purposeOf, stateTable } from '../../workbench/table.ts';
import type { TableState } from '../../workbench/state.ts';
import { namedAmong } from '../census/among.ts';
import { censusFacts, loadFindings, loadLooks, loadShare, loadVariations } from '../census/read.ts';
import { db } from '../database.ts';
import { addDocument } from '../documents/add.ts';
import { DOCUMENT_ORDERS, listDocuments, summaryOf } from '../documents/list.ts';
import { openById } from '../documents/open.ts';
import { documentRow, stepsOf } from '../documents/rows.ts';
import { removeDocument } from '../documents/shelf.ts';
import { addStep, moveToStep } from '../documents/steps.ts';
import { fileOf, writeDocument } from '../documents/writing.ts';
import { loadHouse } from '../house/house.ts';
import { NotFoundError } from '../http/answers.ts';
import { download, uploaded } from '../http/files.ts';
import {
	readAmong,
	readCensusOf,
	readDocumentQuery,
	readId,
	readNumber,
	readOutput,
	readRequest
} from '../http/requests.ts';
import { entrance } from '../people/shared.ts';
import { addWebhook, allowedHosts, listWebhooks, removeWebhook } from '../programs/webhooks.ts';
import { queue } from '../runs/queue.ts';
import { listRuns, resumeRun, runBy, startRun, stopRun, undoRun } from '../runs/runs.ts';
import { zipOf } from '../runs/zip.ts';
import { frozenDraft, listEditions, publishEdition } from '../styles/editions.ts';
import { propose } from '../styles/proposals.ts';
import { addStyleStep } from '../styles/steps.ts';
import { assertNameFree, importStyle, listStyles, loadStyle, STYLES, type StyleRecord } from '../styles/styles.ts';
import type { Answer, Call, Operation, Parameter } from './operation.ts';

const text = { type: 'string' } as const;
const flag = { enum: ['0', '1'] } as const;
const query = (name: string, schema: object, description: string): Parameter => ({ name, schema, description });
const after = query('after', text, 'what the page before gave as “next”');
const OUTPUT = [
	query('as', { enum: OUT_KINDS }, 'the format; its own where absent'),
	query('travel', { enum: TRAVELS }, 'how looks travel'),
	query('tables', { type: 'string', pattern: '^\\d{1,6}(,\\d{1,6})*$' }, 'only these tables, from 0, with commas'),
	query('paper', { enum: Object.keys(PAPERS) }, 'of a PDF'),
	query('across', flag, '1: the paper lies across')
];
const CENSUS_OF = [
	query('kind', { enum: OPENED.map(({ kind }) => kind) }, 'only documents of this kind'),
	query('documents', text, 'only these documents, by ids with commas')
];

const documentId = ({ params }: Call) => readId(params.document!, 'document');
const styleId = ({ params }: Call) => readId(params.style!, 'style');
const runId = ({ params }: Call) => readId(params.run!, 'run');

async function wholeDocument(id: string): Promise<Answer> {
	const { version, step } = await documentRow(db(), id);
	return { body: { ...(await summaryOf(db(), id)), version, step }, version };
}

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
const standing = ({
	step,
	version,
	published = []
}: {
	step: number;
	version: number;
	published?: readonly string[];
}) => ({
	body: { step, version, published },
	version
});

const styleOf = ({ id, version, definition, edition, unpublished, aside, updatedAt, worn }: StyleRecord) => ({
	id,
	name: definition.name,
	category: definition.category ?? null,
	description: definition.description ?? null,
	version,
	edition,
	unpublished,
	aside,
	updatedAt,
	worn
});

const STYLES_ON_PAGE = 100;
/** A page of the styles, by name, after the one with an id. */
async function stylesPage({ url }: Call): Promise<Answer> {
	const all = await listStyles(db());
	const from = url.searchParams.get('after');
	const at = from === null ? 0 : all.findIndex(({ id }) => id === from) + 1;
	if (from !== null && at === 0)
		throw new InputError('request', '“after” in the address is to be what the page before gave as “next”.');
	const shown = all.slice(at, at + STYLES_ON_PAGE);
	return {
		body: { items: shown.map(styleOf), next: at + shown.length < all.length ? shown.at(-1)!.id : null }
	};
}

/**
 * Makes a style's draft what a file says. Its base is named by name; what of inks and type roles is that of the house stays the
 * house's, so that a file that was taken and is put back changes nothing.
 */
async function putStyle(call: Call): Promise<Answer> {
	const id = styleId(call);
	const { bases: _, ...file } = checkStyle(await readRequest(call.request, 'styleFile'));
	return db()
		.transaction()
		.execute(async (trx) => {
			await STYLES.lock(trx, id, call.seen);
			const { definition } = await loadStyle(trx, id);
			const house = await loadHouse(trx);
			await assertNameFree(trx, file.name, id);
			const base = file.basedOn
				? (await listStyles(trx)).find((one) => one.definition.name.toLowerCase() === file.basedOn!.toLowerCase())
				: undefined;
			if (file.basedOn && !base)
				throw new InputError('style', `The house has no style “${file.basedOn}” to build on.`, '/basedOn');
			const own = <T>(
				said: Readonly<Record<string, T>> = {},
				had: object = {},
				ours: (name: string) => T | undefined
			) =>
				Object.fromEntries(
					Object.entries(said).filter(([name, value]) => Object.hasOwn(had, name) || !same(value, ours(name)))
				);
			const inks = own<string>(file.inks, definition.inks, (name) => inkOf(house, name));
			const typeRoles = own(file.typeRoles, definition.typeRoles, (name) => typeRoleOf(house, name));
			const { inks: _inks, typeRoles: _roles, ...rest } = file;
			const next: Style = {
				...rest,
				basedOn: base?.id ?? null,
				...(Object.keys(inks).length && { inks }),
				...(Object.keys(typeRoles).length && { typeRoles })
			};
			await addStyleStep(trx, id, `put by ${call.who.name}`, next);
			const { version } = await loadStyle(trx, id);
			return { body: styleOf(await loadStyle(trx, id)), version };
		});
}

async function changeRun(call: Call): Promise<Answer> {
	const id = runId(call);
	const { to } = await readRequest(call.request, 'changeRun');
	if (!may(call.who.role, 'designer') && (await runBy(db(), id)) !== call.who.id)
		throw new InputError(
			'role',
			'Authors stop and take back runs of their own; this one was started by somebody else.'
		);
	if (to === 'stop') await stopRun(db(), id);
	else if (to === 'undo') await undoRun(db(), id);
	else await resumeRun(db(), id, (await queue(db())).send);
	return oneRun(id);
}
async function oneRun(id: string): Promise<Answer> {
	const [run] = await listRuns(db(), id);
	if (!run) throw new NotFoundError('This run is no longer here.');
	return { body: run };
}

const CENSUS = { share: loadShare, looks: loadLooks, settings: loadVariations, findings: loadFindings } as const;

async function installationSecret(): Promise<string> {
	const { door } = await entrance();
	return (await door.selectFrom('installation').select('secret').executeTakeFirstOrThrow()).secret;
}

/** Everything that programs may ask for. */
export const OPERATIONS: readonly Operation[] = [
	{
		method: 'GET',
		path: '/me',
		id: 'me',
		of: 'House',
		summary: 'Who asks, as what, and in which house',
		needs: 'reader',
		gives: { status: 200, schema: 'Me' },
		run: async ({ who: { id, name, role, house } }) => ({
			body: { id, name, role, house: { id: house, name: (await loadHouse(db())).name } }
		})
	},
	{
		method: 'GET',
		path: '/house',
		id: 'house',
		of: 'House',
		summary: 'Inks, type roles and locale of the house',
		needs: 'reader',
		gives: { status: 200, schema: 'House' },
		run: async () => {
			const { name, inks, typeRoles, locale, secondEyes } = await loadHouse(db());
			return { body: { name, inks, typeRoles, locale, secondEyes } };
		}
	},
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
	},
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
	},
	{
		method: 'GET',
		path: '/styles',
		id: 'listStyles',
		of: 'Styles',
		summary: 'The styles of the house, by name',
		needs: 'reader',
		query: [after],
		gives: { status: 200, schema: 'Styles' },
		run: stylesPage
	},
	{
		method: 'POST',
		path: '/styles',
		id: 'addStyle',
		of: 'Styles',
		summary: 'Take a style file in, with its bases',
		needs: 'designer',
		takes: 'styleFile',
		makes: true,
		hasVersion: true,
		gives: { status: 201, schema: 'Style' },
		run: async ({ request }) => {
			const id = await importStyle(db(), await readRequest(request, 'styleFile'));
			const style = await loadStyle(db(), id);
			return { body: styleOf(style), version: style.version, location: `/styles/${id}` };
		}
	},
	{
		method: 'GET',
		path: '/styles/{style}',
		id: 'getStyle',
		of: 'Styles',
		summary: 'The draft of a style as a file that needs nothing else',
		needs: 'reader',
		hasVersion: true,
		gives: { status: 200, schema: 'StyleFile' },
		run: async (call) => {
			const { id, version } = await loadStyle(db(), styleId(call));
			return { body: await frozenDraft(db(), id), version };
		}
	},
	{
		method: 'PUT',
		path: '/styles/{style}',
		id: 'putStyle',
		of: 'Styles',
		summary: 'Make the draft of a style what a file says',
		needs: 'designer',
		takes: 'styleFile',
		changes: true,
		hasVersion: true,
		gives: { status: 200, schema: 'Style' },
		run: putStyle
	},
	{
		method: 'GET',
		path: '/styles/{style}/editions',
		id: 'listEditions',
		of: 'Styles',
		summary: 'The editions of a style, the newest first',
		needs: 'reader',
		gives: { status: 200, schema: 'Editions' },
		run: async (call) => {
			const { id } = await loadStyle(db(), styleId(call));
			const items = (await listEditions(db(), id)).map(({ frozen: _, ...edition }) => edition);
			return { body: { items } };
		}
	},
	{
		method: 'POST',
		path: '/styles/{style}/editions',
		id: 'publishEdition',
		of: 'Styles',
		summary: 'Publish the draft as the next edition',
		more: 'A house that wants a second pair of eyes refuses it (403, second-eyes): propose it then.',
		needs: 'designer',
		takes: 'note',
		makes: true,
		changes: true,
		gives: { status: 201, schema: 'Published' },
		run: async (call) => {
			const { id, version } = await loadStyle(db(), styleId(call));
			const { note = '' } = await readRequest(call.request, 'note');
			return { body: { number: await publishEdition(db(), id, call.seen ?? version, note) } };
		}
	},
	{
		method: 'POST',
		path: '/styles/{style}/proposals',
		id: 'proposeEdition',
		of: 'Styles',
		summary: 'Propose the draft as the next edition, for somebody else to publish',
		needs: 'designer',
		takes: 'note',
		makes: true,
		changes: true,
		gives: { status: 201, schema: 'Proposed' },
		run: async (call) => {
			const { id, version } = await loadStyle(db(), styleId(call));
			const { note = '' } = await readRequest(call.request, 'note');
			return { body: { id: await propose(db(), id, call.seen ?? version, note) } };
		}
	},
	{
		method: 'GET',
		path: '/runs',
		id: 'listRuns',
		of: 'Runs',
		summary: 'The last fifty runs, the newest first',
		needs: 'reader',
		gives: { status: 200, schema: 'Runs' },
		run: async () => ({ body: { items: await listRuns(db()) } })
	},
	{
		method: 'POST',
		path: '/runs',
		id: 'startRun',
		of: 'Runs',
		summary: 'Start a run: a style, a setting or a rule for many documents',
		needs: 'author',
		takes: 'startRun',
		makes: true,
		gives: { status: 201, schema: 'Made' },
		run: async ({ request }) => {
			const { id } = await startRun(db(), await readRequest(request, 'startRun'), (await queue(db())).send);
			return { body: { id }, location: `/runs/${id}` };
		}
	},
	{
		method: 'GET',
		path: '/runs/{run}',
		id: 'getRun',
		of: 'Runs',
		summary: 'How far a run is',
		needs: 'reader',
		gives: { status: 200, schema: 'Run' },
		run: (call) => oneRun(runId(call))
	},
	{
		method: 'PUT',
		path: '/runs/{run}',
		id: 'changeRun',
		of: 'Runs',
		summary: 'Stop a run, go on with it, or take it back as a whole',
		needs: 'author',
		takes: 'changeRun',
		gives: { status: 200, schema: 'Run' },
		run: changeRun
	},
	{
		method: 'GET',
		path: '/runs/{run}/zip',
		id: 'takeRun',
		of: 'Runs',
		summary: 'Every finished file of a run, with its account, as a zip',
		needs: 'reader',
		gives: { status: 200, schema: 'file' },
		run: async (call) => ({ file: await zipOf(db(), runId(call)) })
	},
	...(Object.keys(CENSUS) as (keyof typeof CENSUS)[]).map((view): Operation => ({
		method: 'GET',
		path: `/census/${view}`,
		id: `census${view[0]!.toUpperCase()}${view.slice(1)}`,
		of: 'Census',
		summary: {
			share: 'How many tables wear styles, over time',
			looks: 'Groups of tables that look alike',
			settings: 'Settings in which tables differ',
			findings: 'Findings of all tables, counted'
		}[view],
		needs: 'reader',
		query: CENSUS_OF,
		gives: { status: 200, schema: 'Census' },
		run: async ({ url }) => {
			const of = readCensusOf(url);
			return { body: { facts: await censusFacts(db(), of), [view]: await CENSUS[view](db(), of) } };
		}
	})),
	{
		method: 'GET',
		path: '/census/tables',
		id: 'censusTables',
		of: 'Census',
		summary: 'The tables of a group of looks, with a value of a setting, with a finding, or that a rule flags',
		needs: 'reader',
		query: [
			...CENSUS_OF,
			query('look', { type: 'integer' }, 'a group of looks'),
			query('setting', text, 'a setting, with a value'),
			query('value', text, 'a value of the setting'),
			query('finding', text, 'a kind of finding'),
			query('rule', text, 'a rule of the policy')
		],
		gives: { status: 200, schema: 'CensusTables' },
		run: async ({ url }) => ({ body: await namedAmong(db(), readCensusOf(url), readAmong(url)) })
	},
	{
		method: 'GET',
		path: '/webhooks',
		id: 'listWebhooks',
		of: 'Webhooks',
		summary: 'Addresses that are told of events',
		needs: 'keeper',
		gives: { status: 200, schema: 'Webhooks' },
		run: async () => ({ body: { items: await listWebhooks(db()) } })
	},
	{
		method: 'POST',
		path: '/webhooks',
		id: 'addWebhook',
		of: 'Webhooks',
		summary: 'Tell an address of events from now on',
		more: 'Told as Standard Webhooks 1.0.0 has it, signed with the secret that is answered. One of this machine or of a private network is refused.',
		needs: 'keeper',
		takes: 'newWebhook',
		makes: true,
		gives: { status: 201, schema: 'NewWebhook' },
		run: async ({ request }) => ({
			body: await addWebhook(
				db(),
				await readRequest(request, 'newWebhook'),
				await installationSecret(),
				allowedHosts(process.env)
			)
		})
	},
	{
		method: 'DELETE',
		path: '/webhooks/{webhook}',
		id: 'removeWebhook',
		of: 'Webhooks',
		summary: 'Tell an address of nothing any more',
		needs: 'keeper',
		gives: { status: 204 },
		run: async ({ params }) => {
			await removeWebhook(db(), readId(params.webhook!, 'webhook'));
			return {};
		}
	}
];
