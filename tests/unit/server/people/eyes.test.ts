import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import { connect, type Database } from '../../../../src/lib/server/database.ts';
import { listDocuments } from '../../../../src/lib/server/documents/list.ts';
import { openById } from '../../../../src/lib/server/documents/open.ts';
import { addStep } from '../../../../src/lib/server/documents/steps.ts';
import { describeError } from '../../../../src/lib/server/http/answers.ts';
import { askForSecondEyes } from '../../../../src/lib/server/house/house.ts';
import { listLog } from '../../../../src/lib/server/house/log.ts';
import { actAs } from '../../../../src/lib/server/people/acting.ts';
import { connectDoor } from '../../../../src/lib/server/people/door.ts';
import { makePerson } from '../../../../src/lib/server/people/entrance.ts';
import { join } from '../../../../src/lib/server/people/members.ts';
import { startRun } from '../../../../src/lib/server/runs/runs.ts';
import { listEditions, promote, publishEdition } from '../../../../src/lib/server/styles/editions.ts';
import { removeStyle } from '../../../../src/lib/server/styles/removal.ts';
import {
	answerProposal,
	openProposal,
	propose,
	proposalsSentBack
} from '../../../../src/lib/server/styles/proposals.ts';
import { addStyleStep } from '../../../../src/lib/server/styles/steps.ts';
import { createStyle, listStyles, loadStyle } from '../../../../src/lib/server/styles/styles.ts';
import { ownDatabase } from '../../../database.ts';

const faultOf = (work: Promise<unknown>) =>
	work.then(
		() => assert.fail('it worked'),
		(error: unknown) => {
			const described = describeError(error);
			if (!described) throw error;
			return `${described.status} ${described.body.code}`;
		}
	);

describe('a second pair of eyes', () => {
	let db: Kysely<Database>;
	let house: string;
	let asInes: <T>(work: () => Promise<T>) => Promise<T>;
	let asOskar: <T>(work: () => Promise<T>) => Promise<T>;
	let style: string;
	before(async () => {
		const own = await ownDatabase('demo');
		house = own.house;
		await own.db.destroy();
		db = connect(own.url);
		const door = connectDoor(own.url);
		const as = async (name: string) => {
			const person = await makePerson(door, name);
			await join(door, house, person, 'designer');
			return <T>(work: () => Promise<T>) => actAs({ house, person }, work);
		};
		asInes = await as('Ines');
		asOskar = await as('Oskar');
		await door.destroy();
		style = (await asInes(() => listStyles(db))).find(({ definition }) => definition.name === 'Season Ledger')!.id;
		await asInes(() => askForSecondEyes(db, true));
	});
	after(() => db.destroy());

	/** Changes the draft, so that there is something to publish. */
	const change = async (description: string) => {
		const { definition } = await loadStyle(db, style);
		await db.transaction().execute((trx) => addStyleStep(trx, style, description, { ...definition, description }));
		return (await loadStyle(db, style)).version;
	};
	const editions = async () => (await db.selectFrom('editions').selectAll().execute()).length;

	it('nothing makes an edition of what nobody else looked at, whichever way it comes', async () => {
		await asInes(async () => {
			const before = await editions();
			const version = await change('One more ink.');
			const worn = (await listStyles(db)).find(({ worn, basesOf }) => worn.tables > 0 && !basesOf.length)!;
			const unpublished = await createStyle(db, {});
			const { documents } = await listDocuments(db, {});
			const document = documents.find(({ kind, tables }) => kind === 'docx' && tables > 0)!;
			const { found } = await openById(db, document.id);
			const step = { 0: { style: unpublished } };
			const ways = {
				publish: () => publishEdition(db, style, version, ''),
				promote: () => promote(db, style, { place: 'total', set: { text: { weight: 700 } } }),
				wear: () => addStep(db, document.id, found.version, 'wear it', step),
				run: () => startRun(db, { style: unpublished, documents: [document.id] }, async () => undefined),
				remove: () => removeStyle(db, worn.id, unpublished)
			};
			for (const [way, work] of Object.entries(ways)) assert.match(await faultOf(work()), /second-eyes/, way);
			assert.equal(await editions(), before);
		});
	});
	it('whoever proposed it is not the second pair of eyes; the other one publishes what was proposed, not what became of the draft', async () => {
		const version = (await asInes(() => loadStyle(db, style))).version;
		const number = (await asInes(() => listEditions(db, style)))[0]?.number ?? 0;
		const id = await asInes(() => propose(db, style, version, 'For the autumn report.'));
		assert.equal(await asInes(() => faultOf(propose(db, style, version, ''))), '409 proposed');
		assert.equal(await asInes(() => faultOf(answerProposal(db, style, id, 'publish', ''))), '403 second-eyes');
		assert.equal(await asOskar(() => faultOf(answerProposal(db, style, id, 'take back', ''))), '403 second-eyes');
		await asInes(() => change('Changed after it was proposed.'));
		assert.equal((await asOskar(() => openProposal(db, style)))?.isMine, false);
		const both = await Promise.allSettled([
			asOskar(() => answerProposal(db, style, id, 'publish', 'Looks right.')),
			asOskar(() => answerProposal(db, style, id, 'publish', ''))
		]);
		assert.equal(both.filter(({ status }) => status === 'fulfilled').length, 1, 'of two answers one counts');
		const [edition] = await asInes(() => listEditions(db, style));
		assert.deepEqual(
			{ ...edition, frozen: edition!.frozen.description, publishedAt: 0 },
			{
				number: number + 1,
				note: 'For the autumn report.\nLooks right.',
				by: 'Oskar',
				proposedBy: 'Ines',
				frozen: 'One more ink.',
				publishedAt: 0
			}
		);
	});
	it('goes back with a note, and that is told of', async () => {
		const { version } = await asInes(() => loadStyle(db, style));
		const id = await asInes(() => propose(db, style, version, ''));
		assert.equal(await asOskar(() => faultOf(answerProposal(db, style, id, 'send back', ' '))), '422 request');
		await asOskar(() => answerProposal(db, style, id, 'send back', 'The total is too faint.'));
		assert.equal(await asInes(() => openProposal(db, style)), undefined);
		const [back] = await asInes(() => proposalsSentBack(db, style));
		assert.deepEqual([back!.by, back!.answeredBy, back!.answerNote], ['Ines', 'Oskar', 'The total is too faint.']);
		assert.equal(await asOskar(() => faultOf(answerProposal(db, style, id, 'publish', ''))), '409 answered');
		const words = (await asInes(() => listLog(db))).map(({ by, words }) => `${by}: ${words}`);
		assert.ok(words.includes('Oskar: the proposed edition of “Season Ledger” was sent back'), words.join('\n'));
	});
	it('a draft that was changed in the meantime is not proposed, and a house that asks no more publishes at once', async () => {
		const { version } = await asInes(() => loadStyle(db, style));
		const now = await asOskar(() => change('Somebody else was faster.'));
		assert.equal(await asInes(() => faultOf(propose(db, style, version, ''))), '409 conflict');
		await asInes(() => askForSecondEyes(db, false));
		assert.equal(typeof (await asInes(() => publishEdition(db, style, now, ''))), 'number');
	});
});
