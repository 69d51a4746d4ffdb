import assert from 'node:assert/strict';
import { afterEach, beforeEach, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import { unknownInks } from '../../../../src/lib/core/cascade/look.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { FIRST_HOUSE, inkOf } from '../../../../src/lib/core/house.ts';
import { mapInks, withLeafAt } from '../../../../src/lib/core/style/edit.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import type { Style } from '../../../../src/lib/core/style/types.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { ConflictError, NotFoundError } from '../../../../src/lib/server/http/answers.ts';
import type { Database } from '../../../../src/lib/server/database.ts';
import { removeDocument } from '../../../../src/lib/server/documents/shelf.ts';
import { addStep } from '../../../../src/lib/server/documents/steps.ts';
import { listDocuments, loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { listSpecimens, loadSpecimens } from '../../../../src/lib/server/styles/specimens.ts';
import { writeDocument } from '../../../../src/lib/server/documents/writing.ts';
import {
	frozenDraft,
	listEditions,
	publishEdition,
	restoreEdition,
	Wardrobe
} from '../../../../src/lib/server/styles/editions.ts';
import { changeHouse, houseSteps, loadHouse, moveHouse } from '../../../../src/lib/server/house/house.ts';
import {
	impactOf,
	impactPictures,
	listRollouts,
	rollOut,
	undoRollOut
} from '../../../../src/lib/server/runs/rollouts.ts';
import { loadStyleSteps, pushUpLeaf, saveStyle } from '../../../../src/lib/server/styles/steps.ts';
import {
	chooseSpecimens,
	chosenSpecimens,
	createStyle,
	findIn,
	listStyles,
	loadStyle,
	putStyleAside,
	styleNames
} from '../../../../src/lib/server/styles/styles.ts';
import { takeStylesIn } from '../../../../src/lib/server/styles/arriving.ts';
import { writeTemplate } from '../../../../src/lib/server/styles/template.ts';
import type { Overtaken } from '../../../../src/lib/server/history.ts';
import { up as wornEditions } from '../../../../migrations/0010-worn-editions.ts';
import { asOwner, ownDatabase } from '../../../database.ts';
import { docx, LEDGER, tbl } from '../../formats/documents.ts';

describe('designing, on the server', () => {
	let db: Kysely<Database>;
	let url: string;
	beforeEach(async () => void ({ db, url } = await ownDatabase('demo')));
	afterEach(() => db.destroy());
	const code = (wanted: string) => (error: unknown) => error instanceof InputError && error.code === wanted;
	const styleNamed = async (name: string) => (await listStyles(db)).find(({ definition }) => definition.name === name)!;
	const documentNamed = async (name: string) =>
		(await listDocuments(db)).documents.find((document) => document.name.startsWith(name))!;
	/** Changes a style by one step, as the bench would. */
	async function change(name: string, edit: (style: Style) => Style, label = 'changed') {
		const { id, version, definition } = await styleNamed(name);
		const { at } = await loadStyleSteps(db, id);
		await saveStyle(db, id, { version, from: at + 1, at: at + 1, steps: [{ label, definition: edit(definition) }] });
		return id;
	}
	const withTotal = (ink: string) => (style: Style) => withLeafAt(style, 'total', 'text.ink', ink);
	const publish = async (name: string, note = '') => {
		const { id, version } = await styleNamed(name);
		return publishEdition(db, id, version, note);
	};

	describe('steps of a style', () => {
		it('outlive the window: undo moves among them, a new step cuts off what was undone', async () => {
			const id = await change('Beacon', withTotal('plum'), 'total: ink');
			await change('Beacon', withTotal('rust'), 'total: ink again');
			let { version } = await loadStyle(db, id);
			const history = await loadStyleSteps(db, id);
			assert.deepEqual(
				[history.first, history.at, history.steps.map(({ label }) => label)],
				[0, 2, ['as it began', 'total: ink', 'total: ink again']]
			);
			({ version } = await saveStyle(db, id, { version, from: 3, at: 1, steps: [] }));
			assert.equal((await loadStyle(db, id)).definition.parts.total!.text!.ink, 'plum');
			const { definition } = await loadStyle(db, id);
			await saveStyle(db, id, {
				version,
				from: 2,
				at: 2,
				steps: [{ label: 'moss', definition: withTotal('moss')(definition) }]
			});
			assert.deepEqual(
				(await loadStyleSteps(db, id)).steps.map(({ label }) => label),
				['as it began', 'total: ink', 'moss']
			);
		});
		it('refuse a place that is none, and store nothing then', async () => {
			const { id, version, definition } = await styleNamed('Beacon');
			await assert.rejects(
				saveStyle(db, id, { version, from: 1, at: 7, steps: [{ label: 'x', definition }] }),
				code('step')
			);
			assert.equal((await loadStyleSteps(db, id)).steps.length, 1);
		});
		it('are told of in a conflict: where they stand, and what was done last', async () => {
			const { id, version } = await styleNamed('Beacon');
			await change('Beacon', withTotal('plum'));
			await assert.rejects(saveStyle(db, id, { version, from: 1, at: 1, steps: [] }), (error) => {
				assert.ok(error instanceof ConflictError);
				const { last, ...standing } = error.current as Overtaken;
				assert.deepEqual([standing, last?.label], [{ step: 1, version: version + 1 }, 'changed']);
				return true;
			});
		});
	});

	it('pushes a leaf up to the base, as a step of both', async () => {
		const { id, version } = await styleNamed('Season Ledger');
		const { base } = await pushUpLeaf(db, id, version, 'total', 'text.weight');
		assert.equal(base, 'House base');
		assert.equal((await styleNamed('House base')).definition.parts.total!.text!.weight, 700);
		assert.equal((await styleNamed('Season Ledger')).definition.parts.total!.text, undefined);
		assert.equal((await loadStyleSteps(db, id)).steps.at(-1)!.label, 'total: weight pushed up to House base');
		await assert.rejects(pushUpLeaf(db, id, version, 'total', 'text.weight'), ConflictError);
		const beacon = await styleNamed('Beacon');
		await assert.rejects(pushUpLeaf(db, beacon.id, beacon.version, 'total', 'text.weight'), code('base'));
	});
	it('and one undo takes it back in both, on whichever bench; what was changed since stays', async () => {
		await change('Season Ledger', (style) => withLeafAt(style, 'total', 'text.weight', 700));
		const [ledger, house] = [await styleNamed('Season Ledger'), await styleNamed('House base')];
		const said = async () =>
			Promise.all(
				['Season Ledger', 'House base'].map(
					async (name) => (await styleNamed(name)).definition.parts.total?.text?.weight
				)
			);
		const before = await said();
		await pushUpLeaf(db, ledger.id, ledger.version, 'total', 'text.weight');
		const pushed = await said();
		assert.notDeepEqual(pushed, before);
		await change('House base', (style) => withLeafAt(style, 'total', 'text.ink', 'rust'));
		for (const { id, other } of [
			{ id: ledger.id, other: 'House base' },
			{ id: ledger.id, other: 'House base' }
		]) {
			const { version, at } = await loadStyleSteps(db, id);
			const back = await saveStyle(db, id, { version, from: at + 1, at: at - 1, steps: [] });
			assert.deepEqual([await said(), back.along], [before, [other]]);
			assert.equal((await styleNamed('House base')).definition.parts.total!.text!.ink, 'rust');
			const again = await saveStyle(db, id, { version: back.version, from: at + 1, at, steps: [] });
			assert.deepEqual([await said(), again.along], [pushed, [other]]);
		}
		const { version, steps } = await loadStyleSteps(db, house.id);
		const at = steps.findIndex(({ label }) => label.includes('pushed up from')) - 1;
		const back = await saveStyle(db, house.id, { version, from: steps.length, at, steps: [] });
		assert.deepEqual([(await said())[0], back.along], [before[0], ['Season Ledger']]);
	});

	describe('editions', () => {
		it('are frozen, whatever happens to the draft, its base or the house', async () => {
			const number = await publish('Season Ledger', 'first');
			assert.equal(number, 1);
			const { id } = await styleNamed('Season Ledger');
			const before = JSON.stringify((await listEditions(db, id))[0]!.frozen);
			await change('Season Ledger', withTotal('rust'));
			await change('House base', (style) => withLeafAt(style, 'ground', 'text.size', '14pt'));
			const house = await loadHouse(db);
			await changeHouse(db, house.version, 'fern darker', {
				...stateOf(house),
				inks: { ...house.inks, fern: '#123456' }
			});
			assert.equal(JSON.stringify((await listEditions(db, id))[0]!.frozen), before);
			assert.ok((await styleNamed('Season Ledger')).unpublished);
		});
		it('are published only where they say something new, and from what the designer saw', async () => {
			await publish('Beacon');
			await assert.rejects(publish('Beacon'), code('edition'));
			const { id, version } = await styleNamed('Beacon');
			await change('Beacon', withTotal('rust'));
			await assert.rejects(publishEdition(db, id, version, ''), ConflictError);
			assert.equal(await publish('Beacon', 'rust'), 2);
		});
		it('are restored as a step that can be undone', async () => {
			await publish('Beacon');
			const id = await change('Beacon', withTotal('rust'));
			await restoreEdition(db, id, 1);
			assert.notEqual((await loadStyle(db, id)).definition.parts.total!.text!.ink, 'rust');
			assert.equal((await loadStyleSteps(db, id)).steps.at(-1)!.label, 'edition 1 restored');
			await assert.rejects(restoreEdition(db, id, 9), NotFoundError);
		});
		it('are rolled out to documents that are chosen, to tables that follow, and taken back as one', async () => {
			const ledger = await styleNamed('Season Ledger');
			const report = await documentNamed('Season');
			const handbook = await documentNamed('Volunteers');
			await publish('Season Ledger');
			const worn = { style: ledger.id, edition: 1 };
			await addStep(db, report.id, 0, 'x', { 0: worn, 1: { ...worn, pinned: true }, 2: worn });
			await addStep(db, handbook.id, 0, 'x', { 0: worn });
			await change('Season Ledger', withTotal('rust'));

			const impacts = await impactOf(db, ledger.id);
			assert.equal(impacts.length, 4);
			const share = (impact: (typeof impacts)[number]) =>
				impact.pinned ? -1 : (impact.cells + impact.edges / 2) / impact.allCells;
			assert.deepEqual(
				impacts.map(share),
				impacts.map(share).sort((a, b) => b - a),
				'most changed first'
			);
			assert.ok(impacts.some(({ cells }) => cells > 0));
			const [picture] = await impactPictures(db, impacts.slice(0, 1));
			assert.equal(picture!.before!.name, 'Season Ledger');

			assert.equal(await publish('Season Ledger', 'rust totals'), 2);
			const tablesOf = async (id: string) => (await loadDocument(db, id)).state.tables;
			assert.equal((await tablesOf(report.id))[0]!.edition, 1, 'publishing changes no document');
			const done = await rollOut(db, ledger.id, 2, [report.id]);
			assert.deepEqual([done.tables, done.documents], [2, 1]);
			const now = await tablesOf(report.id);
			assert.deepEqual([now[0]!.edition, now[1]!.edition, now[2]!.edition], [2, 1, 2], 'the pinned one stays');
			assert.equal((await tablesOf(handbook.id))[0]!.edition, 1, 'and so does what was not chosen');
			await assert.rejects(rollOut(db, ledger.id, 2, [report.id]), code('rollout'));

			// One table is given something else before the roll-out is taken back: it keeps that.
			const { version } = await loadDocument(db, report.id);
			await addStep(db, report.id, version, 'y', { 2: { style: (await styleNamed('Beacon')).id } });
			assert.deepEqual(await undoRollOut(db, done.id), { tables: 1, kept: 1 });
			assert.equal((await tablesOf(report.id))[0]!.edition, 1);
			assert.ok((await listRollouts(db, ledger.id))[0]!.undone);
			await assert.rejects(undoRollOut(db, done.id), code('rollout'));
		});
		it('are taken back where one of the documents was taken out meanwhile', async () => {
			const ledger = await styleNamed('Season Ledger');
			const report = await documentNamed('Season');
			const handbook = await documentNamed('Volunteers');
			for (const colour of ['rust', 'moss']) {
				await change('Season Ledger', withTotal(colour));
				await publish('Season Ledger');
			}
			const worn = { style: ledger.id, edition: 1 };
			for (const { id } of [report, handbook]) await addStep(db, id, 0, 'x', { 0: worn });
			const done = await rollOut(db, ledger.id, 2, [report.id, handbook.id]);
			await removeDocument(db, handbook.id);
			assert.deepEqual(await undoRollOut(db, done.id), { tables: 1, kept: 0 });
			assert.equal((await loadDocument(db, report.id)).state.tables[0]!.edition, 1);
		});
		it('stay worn while their style is put aside, and it comes back whole', async () => {
			const { id: beacon } = await styleNamed('Beacon');
			const { id } = await documentNamed('Season');
			await addStep(db, id, 0, 'x', { 0: { style: beacon } });
			const before = await loadStyleSteps(db, beacon);
			await putStyleAside(db, beacon, true);
			assert.deepEqual([(await styleNamed('Beacon')).aside, (await styleNamed('Beacon')).worn.tables], [true, 1]);
			assert.ok(!(await styleNames(db)).some(({ name }) => name === 'Beacon'));
			assert.equal((await writeDocument(db, id)).account.tables[0]!.style, 'Beacon');
			await assert.rejects(
				change('Season Ledger', (style) => ({ ...style, name: 'Beacon' })),
				/already has a style named “Beacon”, put aside/
			);
			await putStyleAside(db, beacon, false);
			assert.deepEqual(await loadStyleSteps(db, beacon), before);
			await assert.rejects(putStyleAside(db, '00000000-0000-0000-0000-000000000000', true), NotFoundError);
		});
		it('are what documents wear, never a draft: the first is published when a table puts the style on', async () => {
			const { id: beacon } = await styleNamed('Beacon');
			const { id } = await documentNamed('Season');
			const { state, published, version } = await addStep(db, id, 0, 'x', {
				0: { style: beacon },
				1: { style: beacon }
			});
			assert.deepEqual(published, ['Beacon']);
			assert.deepEqual(state.tables, { 0: { style: beacon, edition: 1 }, 1: { style: beacon, edition: 1 } });
			const [first] = await listEditions(db, beacon);
			assert.match(first!.note, /by itself/);
			assert.equal((await styleNamed('Beacon')).unpublished, false);
			const file = async () => (await readDocx((await writeDocument(db, id)).bytes)).styles[0]!.parts.total?.text?.ink;
			const before = await file();
			await change('Beacon', withTotal('rust'));
			assert.equal(await file(), before, 'strokes on the bench change no document');
			assert.equal((await styleNamed('Beacon')).unpublished, true);

			const next = await addStep(db, id, version, 'y', { 2: { style: beacon, edition: 1 }, 3: { style: beacon } });
			assert.deepEqual([next.published, next.state.tables[3]], [[], { style: beacon, edition: 1 }]);
			await assert.rejects(addStep(db, id, next.version, 'z', { 4: { style: beacon, edition: 7 } }), code('request'));
			const both = { 4: { style: beacon }, 5: { style: beacon, edition: 7 } };
			await assert.rejects(addStep(db, id, next.version, 'z', both), code('request'), 'not covered by another table');
		});
		it('are what tables wear that wore a draft before there was this law', async () => {
			const { id: beacon } = await styleNamed('Beacon');
			const ledger = await styleNamed('Season Ledger');
			const { id } = await documentNamed('Season');
			await publish('Season Ledger');
			await addStep(db, id, 0, 'x', { 0: { style: beacon, edition: 1 }, 1: { style: ledger.id, edition: 1 } });
			await change('Season Ledger', withTotal('rust'));
			await sql`update document_steps set state = jsonb_set(jsonb_set(state, '{tables,0}', ${JSON.stringify({ style: beacon, pinned: true })}::jsonb),
				'{tables,1}', ${JSON.stringify({ style: ledger.id })}::jsonb) where document_id = ${id} and step = 1`.execute(db);
			await sql`update wears set edition = null where document_id = ${id}`.execute(db);
			await sql`delete from editions where style_id = ${beacon}`.execute(db);
			await wornEditions(db as unknown as Kysely<unknown>);
			const { state } = await loadDocument(db, id);
			assert.deepEqual(state.tables[0], { style: beacon, pinned: true, edition: 1 });
			assert.deepEqual(state.tables[1], { style: ledger.id, edition: 2 }, 'the draft that it wore, as it was');
			assert.equal((await listEditions(db, ledger.id))[0]!.frozen.parts.total!.text!.ink, 'rust');
			const { rows } = await sql`select 1 from wears where edition is null`.execute(db);
			assert.equal(rows.length, 0);
		});
		it('are what a document’s file is written in, two of one style side by side', async () => {
			const ledger = await styleNamed('Season Ledger');
			const { id } = await documentNamed('Season');
			await publish('Season Ledger');
			await change('Season Ledger', withTotal('rust'));
			await publish('Season Ledger');
			await change('Season Ledger', withTotal('moss'));
			await addStep(db, id, 0, 'x', {
				1: { style: ledger.id, edition: 1 },
				2: { style: ledger.id, edition: 2 },
				4: { style: ledger.id, edition: 2 }
			});
			const { bytes, account } = await writeDocument(db, id);
			for (const table of account.tables) assert.deepEqual(table.differences, [], table.style);
			const document = await readDocx(bytes);
			assert.deepEqual(document.styles.map(({ name }) => name).sort(), ['Season Ledger', 'Season Ledger, edition 1']);
			const wardrobe = await Wardrobe.load(db);
			const inkOf = (edition?: number) =>
				wardrobe.definition({ style: ledger.id, ...(edition && { edition }) })!.parts.total!.text!.ink;
			assert.deepEqual([inkOf(1), inkOf(2), inkOf()], [undefined, 'rust', 'moss']);
			assert.equal(
				wardrobe.offered().find(({ id: own }) => own === ledger.id)!.definition.parts.total!.text!.ink,
				'rust'
			);
			assert.deepEqual(Object.keys(wardrobe.older(await loadHouse(db))).sort(), [
				`${ledger.id}@1`,
				`${ledger.id}@draft`
			]);
		});
	});

	const stateOf = ({ inks, typeRoles, locale }: Awaited<ReturnType<typeof loadHouse>>) => ({ inks, typeRoles, locale });

	describe('the house', () => {
		it('renames an ink in every style that names it, and takes it back in all of them', async () => {
			const house = await loadHouse(db);
			const { fern, ...rest } = house.inks;
			const changed = await changeHouse(
				db,
				house.version,
				'fern is leaf now',
				{ ...stateOf(house), inks: { ...rest, leaf: fern! } },
				{ inks: { fern: 'leaf' } }
			);
			const text = async () => JSON.stringify((await listStyles(db)).map(({ definition }) => definition.parts));
			assert.ok(!(await text()).includes('"fern"') && (await text()).includes('"leaf"'));
			const back = await moveHouse(db, changed.version, 0);
			assert.equal(back.inks.fern, fern);
			assert.ok((await text()).includes('"fern"') && !(await text()).includes('"leaf"'));
			const again = await moveHouse(db, back.version, 1);
			assert.equal(again.inks.leaf, fern);
			assert.ok(!(await text()).includes('"fern"'));
			assert.deepEqual(
				(await houseSteps(db)).map(({ label }) => label),
				['as it was', 'fern is leaf now']
			);
		});
		it('leaves a style’s own ink of that name alone', async () => {
			const id = await change('Beacon', (style) => ({ ...style, inks: { plum: '#111111' } }));
			const house = await loadHouse(db);
			const { plum, ...rest } = house.inks;
			await changeHouse(
				db,
				house.version,
				'x',
				{ ...stateOf(house), inks: { ...rest, damson: plum! } },
				{ inks: { plum: 'damson' } }
			);
			assert.ok(JSON.stringify((await loadStyle(db, id)).definition.parts).includes('"plum"'));
		});
		it('goes on meaning by a former name what it meant, in steps that are gone back to', async () => {
			const id = await change('Season Ledger', withTotal('fern'));
			await change('Season Ledger', withTotal('rust'));
			const house = await loadHouse(db);
			const { fern, ...rest } = house.inks;
			const renamed = { inks: { fern: 'leaf' } };
			await changeHouse(db, house.version, 'x', { ...stateOf(house), inks: { ...rest, leaf: fern! } }, renamed);
			const { version, at } = await loadStyleSteps(db, id);
			await saveStyle(db, id, { version, from: at + 1, at: at - 2, steps: [] });
			const { definition } = await loadStyle(db, id);
			assert.equal(definition.parts.total!.text!.ink, 'leaf');
			assert.deepEqual(
				unknownInks({ style: flatten(definition, findIn(await listStyles(db))), house: await loadHouse(db) }),
				[]
			);
			const now = await loadHouse(db);
			await changeHouse(db, now.version, 'x', { ...stateOf(now), inks: rest });
			assert.equal(inkOf(await loadHouse(db), 'fern'), fern, 'taken out: as it was');
		});
		it('takes back a rename, and leaves what was changed since', async () => {
			const house = await loadHouse(db);
			const { fern, ...rest } = house.inks;
			const changed = await changeHouse(
				db,
				house.version,
				'x',
				{ ...stateOf(house), inks: { ...rest, leaf: fern! } },
				{ inks: { fern: 'leaf' } }
			);
			await change('Season Ledger', withTotal('rust'));
			const back = await moveHouse(db, changed.version, 0);
			assert.equal(back.inks.fern, fern);
			const { definition } = await styleNamed('Season Ledger');
			assert.equal(definition.parts.total!.text!.ink, 'rust');
			assert.ok(!JSON.stringify(definition.parts).includes('"leaf"'));
		});
		it('refuses inks that are none, replacements that are not there, and what another window changed', async () => {
			const house = await loadHouse(db);
			const bad = (state: object, renamed = {}) =>
				changeHouse(db, house.version, 'x', { ...stateOf(house), ...state }, renamed);
			await assert.rejects(bad({ inks: { fern: 'green' } }), code('style'));
			await assert.rejects(bad({ inks: { none: '#000000' } }), code('style'));
			await assert.rejects(bad({ typeRoles: { x: { size: 'big' } } }), code('style'));
			await assert.rejects(bad({ locale: 'xx' }), code('request'));
			await assert.rejects(bad({}, { inks: { fern: 'azure' } }), code('request'));
			await changeHouse(db, house.version, 'x', { ...stateOf(house), locale: 'de-DE' });
			await assert.rejects(bad({}), ConflictError);
		});
	});

	it('chooses specimens by key, in that order; what is gone is left out', async () => {
		const { id } = await styleNamed('Beacon');
		const choices = await listSpecimens(db);
		assert.equal(choices.length, 32, 'all but the nested ones');
		const keys = [choices[3]!.key, 'built-in', choices[0]!.key, '00000000-0000-0000-0000-000000000000/0'];
		await chooseSpecimens(db, id, keys);
		const chosen = await loadSpecimens(db, 5, await chosenSpecimens(db, id));
		assert.deepEqual(
			chosen.map(({ key }) => key),
			[choices[3]!.key, choices[0]!.key]
		);
		await chooseSpecimens(db, id, null);
		assert.equal(await chosenSpecimens(db, id), null);
	});

	describe('templates', () => {
		const styles = `<w:style w:type="table" w:styleId="A"><w:name w:val="Beacon"/><w:rPr><w:b/></w:rPr></w:style><w:style w:type="table" w:styleId="B"><w:name w:val="Office costs"/><w:basedOn w:val="A"/><w:tblStylePr w:type="firstRow"><w:rPr><w:color w:val="2F5D50"/></w:rPr></w:tblStylePr></w:style>`;
		it('come in with their chains; what becomes of a name that is taken is asked first; all or none', async () => {
			const bytes = await docx({ body: tbl(LEDGER), styles });
			const count = (await listStyles(db)).length;
			const asked = await takeStylesIn(db, 'office.docx', bytes);
			assert.deepEqual([asked.styles, asked.clashes.map(({ name }) => name)], [[], ['Beacon']]);
			assert.equal((await listStyles(db)).length, count, 'nothing is stored while there is a question');
			const { styles: taken } = await takeStylesIn(db, 'office.docx', bytes, { Beacon: 'both' });
			assert.deepEqual(
				taken.map(({ name, was }) => [name, was]),
				[
					['Beacon 2', 'Beacon'],
					['Office costs', 'Office costs']
				]
			);
			const costs = await loadStyle(db, taken[1]!.id);
			assert.equal(costs.definition.basedOn, taken[0]!.id);
			assert.deepEqual(costs.definition.parts, { header: { text: { ink: 'fern' } } });
			await assert.rejects(takeStylesIn(db, 'none.docx', await docx({ body: tbl(LEDGER) })), code('no-style'));
			const again = await takeStylesIn(db, 'office.docx', bytes, { Beacon: 'ours' });
			assert.deepEqual(
				[again.styles, again.clashes.map(({ name }) => name)],
				[[], ['Office costs']],
				'what is there builds on another base'
			);
		});
		it('take the place of what the house has, as one step that can be taken back', async () => {
			const bytes = await docx({ body: tbl(LEDGER), styles });
			const { id, definition } = await styleNamed('Beacon');
			const { styles: taken } = await takeStylesIn(db, 'office.docx', bytes, { Beacon: 'instead' });
			assert.deepEqual(taken[0], { id, name: 'Beacon', was: 'Beacon' });
			assert.deepEqual((await loadStyle(db, id)).definition.parts, { ground: { text: { weight: 700 } } });
			const { version, at, steps } = await loadStyleSteps(db, id);
			assert.equal(steps.at(-1)!.label, 'taken in from “office.docx”');
			await saveStyle(db, id, { version, from: at + 1, at: at - 1, steps: [] });
			assert.deepEqual((await loadStyle(db, id)).definition, definition);
		});
		it('are known again by what they say, whatever their inks are called; a style file likewise', async () => {
			const ledger = await styleNamed('Season Ledger');
			const file = (style: unknown) => new TextEncoder().encode(JSON.stringify(style)) as Uint8Array<ArrayBuffer>;
			const frozen = await frozenDraft(db, ledger.id);
			assert.deepEqual(await takeStylesIn(db, 'ledger.json', file(frozen)), { styles: [], clashes: [] });
			const renamed = { ...frozen, inks: { ...frozen.inks, leaf: FIRST_HOUSE.inks.fern! } };
			const other = mapInks(renamed, (ink) => (ink === 'fern' ? 'leaf' : ink));
			assert.deepEqual(await takeStylesIn(db, 'ledger.json', file(other)), { styles: [], clashes: [] });
			const { clashes } = await takeStylesIn(db, 'ledger.json', file(withTotal('plum')(frozen)));
			assert.deepEqual(
				clashes.map(({ name }) => name),
				['Season Ledger']
			);
			await putStyleAside(db, ledger.id, true);
			await takeStylesIn(db, 'ledger.json', file(frozen));
			assert.equal((await styleNamed('Season Ledger')).aside, false, 'one that was put aside is back');
			await assert.rejects(
				takeStylesIn(db, 'ledger.json', file({ ...frozen, parts: { ground: { fill: { hue: 1 } } } })),
				/“ledger\.json”.*valid/
			);
			await assert.rejects(
				takeStylesIn(db, 'half.json', new TextEncoder().encode('{"a":')),
				/“half\.json” is not whole/
			);
		});
		it('go out with styles that authors can pick, and come back as they were defined', async () => {
			const ids = (await listStyles(db)).map(({ id }) => id);
			const { bytes } = await writeTemplate(db, ids);
			assert.deepEqual(
				await takeStylesIn(db, 'back.docx', bytes),
				{ styles: [], clashes: [] },
				'the house has them all'
			);
			const drafts = new Map<string, Style>();
			for (const id of ids)
				drafts.set(
					(await styleNamed((await loadStyle(db, id)).definition.name)).definition.name,
					await frozenDraft(db, id)
				);
			await asOwner(url, (owner) => sql`truncate styles cascade`.execute(owner));
			await takeStylesIn(db, 'back.docx', bytes);
			const parts = ({ parts, bases, bands, rules }: Style) => ({
				parts,
				bands,
				rules,
				bases: bases?.map(({ parts }) => parts)
			});
			for (const { id, definition } of await listStyles(db))
				assert.deepEqual(parts(await frozenDraft(db, id)), parts(drafts.get(definition.name)!), definition.name);
			await assert.rejects(writeTemplate(db, []), NotFoundError);
		});
	});

	it('a new style begins its steps with what it began as', async () => {
		const { steps, at, first } = await loadStyleSteps(db, await createStyle(db));
		assert.deepEqual([steps.length, at, first], [1, 0, 0]);
	});
});
