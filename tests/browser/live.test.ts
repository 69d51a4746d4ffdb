import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { sql } from 'kysely';
import { Application, By, Key, Page } from './support.ts';

/** Two people at two web processes of one installation. */
describe('two people at once', () => {
	let here: Application;
	let there: Application;
	let ines: Page;
	let oskar: Page;
	let document: string;
	let cookie: string;
	before(async () => {
		here = await Application.start('demo', {});
		there = await here.another();
		cookie = await here.signedIn('designer', undefined, 'Oskar');
		ines = await Page.on(here, await here.signedIn('keeper', undefined, 'Ines'));
		oskar = await Page.on(there, cookie);
		const answer = await fetch(`${here.origin}/api/documents`, { headers: { Cookie: cookie } });
		const { documents } = (await answer.json()) as { documents: { id: string; name: string }[] };
		document = documents.find(({ name }) => name === 'Season report 2031')!.id;
	});
	after(async () => {
		await oskar.close();
		await ines.close();
	});
	const shown = (page: Page) => page.text('body');
	const sees = (page: Page, words: RegExp) => page.until(String(words), async () => words.test(await shown(page)));
	const change = async (label: string, path = `/api/documents/${document}`) => {
		const ask = (way: string, init?: RequestInit) =>
			fetch(there.origin + path + way, {
				...init,
				headers: { Cookie: cookie, Origin: there.origin, 'Content-Type': 'application/json' }
			});
		const { version } = (await (await ask('/step')).json()) as { version: number };
		const body = JSON.stringify({ version, label, tables: { 0: {} } });
		const answer = await ask('/steps', { method: 'POST', body });
		assert.equal(answer.status, 201, await answer.text());
	};

	it('see each other’s names on the same thing, as long as both look at it', async () => {
		await ines.go(`/documents/${document}`);
		assert.doesNotMatch(await shown(ines), /is here, too/, 'oneself is nobody else');
		await oskar.go(`/documents/${document}`);
		await sees(ines, /Oskar is here, too/);
		await sees(oskar, /Ines is here, too/);
		await ines.isAccessible('a document with somebody else on it');
		await oskar.go('/documents');
		await ines.until('nobody else', async () => !/is here, too/.test(await shown(ines)));
	});
	it('what one does is shown to the other, at once and as theirs', async () => {
		await change('table 1 looked at');
		await sees(ines, /Oskar: table 1 looked at/);
		await ines.click('Steps');
		await sees(ines, /table 1 looked at/);
	});
	it('a listener that is lost listens again, and what was missed is shown', async () => {
		await here.loseListeners();
		await change('while nobody listened');
		await sees(ines, /while nobody listened/);
		await change('and after that');
		await sees(ines, /Oskar: and after that/);
	});
	it('what one does at the table bench is shown there as theirs, in the steps, too', async () => {
		const at = `/documents/${document}/bench?table=1`;
		await ines.go(at);
		await oskar.go(at);
		await sees(ines, /Oskar is here, too/);
		const cell = await oskar.find(By.xpath("//*[@role='grid']//*[@data-cell][contains(., 'Fern grotto')]"));
		await oskar.driver.actions().doubleClick(cell).sendKeys(' and pond', Key.TAB).perform();
		await sees(ines, /Oskar: typed in row 5, column 1/);
		await ines.until('the cell', async () => /Fern grotto and pond/.test(await ines.text('[role=grid]')));
		await ines.click('Steps', 'button');
		await sees(ines, /typed in row 5, column 1\s+Oskar, /);
		await oskar.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await sees(ines, /Oskar went back to: as it was/);
		await oskar.go('/documents');
	});
	it('a keeper lets older steps go after a look at how many; undo goes through what is left', async () => {
		await here.behind(sql`update document_steps set created_at = now() - interval '100 days'`);
		await ines.go('/house');
		const days = () => ines.css('input[aria-label="Days for which steps are kept"]');
		await (await days()).sendKeys('0', Key.ENTER);
		await sees(ines, /It goes from 1 to 36525/);
		await (await days()).sendKeys(Key.ESCAPE, '90', Key.ENTER);
		await ines.until('the question', async () =>
			/[1-9]\d* steps are older and go for good/.test(await ines.text('dialog[open]'))
		);
		await ines.isAccessible('how many steps go');
		await ines.click('Leave it as it is');
		await ines.until('as it was', async () => (await (await days()).getAttribute('value')) === '');
		await (await days()).sendKeys('90', Key.ENTER);
		await ines.click('Let older ones go');
		await sees(ines, /Steps are kept for 90 days\./);
		await ines.until('90', async () => (await (await days()).getAttribute('value')) === '90');
		// As the sweep leaves it: the list begins at another number than 0.
		await here.behind(sql`delete from document_steps s using documents d
			where d.id = s.document_id and d.id = ${document} and s.step < d.step - 1`);
		await ines.go(`/documents/${document}`);
		const undo = await ines.css('button[title^="Undo: "]');
		const label = (await undo.getAttribute('title'))!.replace('Undo: ', '');
		await ines.click(undo);
		await ines.css(`button[title="Redo: ${label}"]`);
		assert.equal((await ines.driver.findElements(By.css('button[title="Nothing to undo"]'))).length, 1);
		await ines.click(await ines.css(`button[title="Redo: ${label}"]`));
		await ines.css(`button[title="Undo: ${label}"]`);
	});
	it('a list shows what others add', async () => {
		await ines.go('/documents');
		await fetch(`${there.origin}/api/documents?name=Willow%20counts.csv`, {
			method: 'POST',
			headers: { Cookie: cookie, Origin: there.origin, 'Content-Type': 'application/octet-stream' },
			body: 'Tree,Count\nWillow,4\nAlder,7\n'
		});
		await sees(ines, /Willow counts/);
		await ines.consoleIsClean();
	});
	it('an edition is proposed by one, and looked at and published by the other', async () => {
		await ines.go('/house');
		await ines.click(await ines.css('input[type=checkbox][aria-label], label input[type=checkbox]'));
		await oskar.go('/stylebook');
		await oskar.click('Season Ledger', 'a');
		await oskar.until('the bench', async () => /stylebook\/[0-9a-f-]{36}$/.test(await oskar.driver.getCurrentUrl()));
		const style = (await oskar.driver.getCurrentUrl()).split('/').at(-1)!;
		const ask = (way: string, method = 'GET', body?: unknown) =>
			fetch(`${there.origin}/api/styles/${style}${way}`, {
				method,
				headers: { Cookie: cookie, Origin: there.origin, 'Content-Type': 'application/json' },
				...(body !== undefined && { body: JSON.stringify(body) })
			});
		const { version, at, steps, first } = (await (await ask('/steps')).json()) as {
			version: number;
			at: number;
			first: number;
			steps: { definition: { parts: object } }[];
		};
		const { definition } = steps[at - first]!;
		const fainter = {
			...definition,
			parts: { ...definition.parts, header: { fill: { ink: 'paper' }, text: { weight: 400 } } }
		};
		const saved = await ask('', 'PUT', {
			version,
			from: at + 1,
			at: at + 1,
			steps: [{ label: 'fainter', definition: fainter }]
		});
		assert.equal(saved.status, 200, await saved.text());
		await oskar.go(`/stylebook/${style}/editions`);
		await (await oskar.css('textarea[aria-label=Note]')).sendKeys('The header was too loud.');
		await oskar.click('Propose edition');
		await sees(oskar, /is proposed by you/);
		const publish = await oskar.named('Publish edition');
		assert.equal(await publish.isEnabled(), false);
		assert.match((await publish.getAttribute('title'))!, /somebody else has to look at it/);
		await ines.go('/');
		await sees(ines, /an edition is proposed by Oskar/);
		await ines.go(`/stylebook/${style}/editions`);
		await sees(ines, /The header was too loud\./);
		await ines.isAccessible('a proposed edition');
		await ines.click('Send it back…');
		await (await ines.css('dialog[open] textarea')).sendKeys('Keep the weight.');
		await ines.isAccessible('sending it back');
		await ines.click(await ines.find(By.xpath("//dialog[@open]//button[normalize-space(.)='Send it back']")));
		await sees(oskar, /Keep the weight\./);
		await oskar.click('Propose edition');
		await sees(oskar, /is proposed by you/);
		await sees(ines, /is proposed by Oskar/);
		await ines.click('Publish edition');
		await sees(ines, /by Ines, proposed by Oskar/);
		await sees(oskar, /by Ines, proposed by Oskar/);
		await ines.consoleIsClean();
		await oskar.consoleIsClean();
	});
	it('whoever is signed out elsewhere hears no more', async () => {
		const stream = await fetch(`${here.origin}/api/live?on=documents/${document}`, { headers: { Cookie: cookie } });
		assert.equal(stream.status, 200);
		await fetch(`${here.origin}/api/session`, { method: 'DELETE', headers: { Cookie: cookie, Origin: here.origin } });
		// It ends by itself with the next beat.
		assert.match(await stream.text(), /event: arrived/);
	});
});
