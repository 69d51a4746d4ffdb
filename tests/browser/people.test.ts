import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { By } from 'selenium-webdriver';
import { codeAt } from '../totp.ts';
import { Page } from './support.ts';

/** Two people, each at a browser of their own. */
describe('people of a house', () => {
	let keeper: Page;
	let ines: Page;
	before(async () => {
		keeper = await Page.open('demo', {});
		ines = await keeper.beside();
	});
	after(async () => {
		await ines.driver.quit();
		await keeper.close();
	});
	const type = async (page: Page, label: string, text: string) => {
		const field = await page.find(By.xpath(`//label[contains(., ${JSON.stringify(label)})]//input`));
		await field.clear();
		await field.sendKeys(text);
	};
	const shown = (page: Page) => page.text('body');
	let link: string;

	it('opens the plain address without signing in, and says that an invitation ends that', async () => {
		await keeper.go('/');
		assert.match(await keeper.text('nav'), /Keeper/);
		await keeper.isAccessible('the Desk of a keeper');
		await keeper.go('/me');
		assert.match(await shown(keeper), /You need none as long as you are alone here/);
		await keeper.isAccessible('what is one’s own');
		await keeper.go('/house/people');
		await keeper.isAccessible('the people of a house');
		await keeper.click('Invite somebody…');
		await keeper.until('the question', async () =>
			(await keeper.text('dialog[open]')).includes('From now on, and for good, everybody signs in here')
		);
		await type(keeper, 'Their name', 'Ines');
		await keeper.isAccessible('the invitation');
		await keeper.click('Make the link');
		const field = await keeper.css('dialog[open] input[aria-label="The link"]');
		link = (await field.getAttribute('value'))!;
		assert.match(link, /^http:\/\/127\.0\.0\.1:\d+\/enter\/[\w-]{32}$/);
		await keeper.click('I have it');
		await keeper.until('the invitation in the list', async () => /Ines as author/.test(await shown(keeper)));
		await keeper.go('/documents');
		assert.match(await shown(keeper), /Season report 2031/, 'whoever invited is signed in');
	});
	it('asks everybody else to sign in, and leads on to where they wanted to go', async () => {
		await ines.go('/documents?sort=name');
		assert.match(await ines.driver.getCurrentUrl(), /\/sign-in\?to=%2Fdocuments%3Fsort%3Dname$/);
		assert.doesNotMatch(await shown(ines), /Season report/);
		await ines.isAccessible('signing in');
		await type(ines, 'Name', 'ines');
		await type(ines, 'Password', 'whatever it may be');
		await ines.click('Sign in', 'button');
		await ines.until('the refusal', async () => /No person here has this name/.test(await shown(ines)));
		await ines.driver.manage().logs().get('browser');
	});
	it('lets somebody in by a link, once, as what they were invited', async () => {
		await ines.driver.get(link);
		await ines.until('the house', async () => /Come into Thornmere Botanic Garden/.test(await shown(ines)));
		await ines.isAccessible('coming in');
		await type(ines, 'You sign in by', 'ines');
		await type(ines, 'Password', 'four ferns in a row');
		await ines.click('Come in', 'button');
		await ines.until('the Desk', async () => /Ines/.test(await ines.text('nav')));
		await ines.consoleIsClean();
		const third = await keeper.beside();
		await third.driver.get(link);
		await third.until('the reason', async () => /This link was used already/.test(await shown(third)));
		await third.driver.quit();
	});
	it('greys what is not theirs with the reason, and the server refuses it all the same', async () => {
		await ines.go('/stylebook');
		const begin = await ines.named('New style…');
		assert.equal(await begin.isEnabled(), false);
		assert.match((await begin.getAttribute('title'))!, /This is for a designer; in this house you are an author/);
		await ines.click('Season Ledger');
		await ines.until('the reason', async () => /This is for a designer/.test(await ines.text('[role=note]')));
		const size = await ines.css('aside [aria-label^="Size"], aside input');
		assert.equal(await size.isEnabled(), false);
		const status = await ines.driver.executeAsyncScript<number>(
			`const done = arguments[0];
			fetch('/api/styles', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' }).then(({ status }) => done(status))`
		);
		assert.equal(status, 403);
		await ines.driver.manage().logs().get('browser');
	});
	it('says at each step who made it', async () => {
		await ines.go('/documents');
		await ines.click('Volunteers’ handbook');
		await ines.css('#table-0');
		await ines.click(await ines.named('Quiet Lines', 'button[@role="option"]'));
		await ines.click('Apply to 1 table');
		await ines.until('worn', async () => (await ines.text('header')).includes('wears Quiet Lines'));
		await keeper.go('/documents');
		await keeper.click('Volunteers’ handbook');
		await keeper.css('#table-0');
		await keeper.click('Steps', 'button');
		await keeper.until('her name', async () => /Ines, /.test(await keeper.text('dialog[open]')));
	});
	it('a role that is taken away holds at once: what was meant is refused in words, and nothing is lost', async () => {
		await keeper.go('/house/people');
		await keeper.select('Role of Ines', 'reader');
		await keeper.until('her role', async () => {
			const value = await keeper.driver.executeScript(
				'return document.querySelector("select[aria-label=\'Role of Ines\']").value'
			);
			return value === 'reader';
		});
		await keeper.driver.sleep(500);
		await ines.click(await ines.named('Beacon', 'button[@role="option"]'));
		await ines.click('Apply to 1 table');
		await ines.until('the reason', async () => /in this house you are a reader/.test(await shown(ines)));
		await ines.driver.manage().logs().get('browser');
		await ines.go('/');
		assert.equal(await (await ines.named('Add documents…')).isEnabled(), false);
		await keeper.go('/house/log');
		assert.match(await shown(keeper), /Ines is reader from now on/);
		assert.match(await shown(keeper), /Ines was invited as author/);
		await keeper.isAccessible('the log of a house');
	});
	it('shows where somebody is signed in, and ends it there', async () => {
		const elsewhere = await keeper.beside();
		await elsewhere.go('/sign-in');
		await type(elsewhere, 'Name', 'INES');
		await type(elsewhere, 'Password', 'four ferns in a row');
		await elsewhere.click('Sign in', 'button');
		await elsewhere.until('the Desk', async () => /Ines/.test(await elsewhere.text('nav')));
		await ines.go('/me');
		await ines.isAccessible('where somebody is signed in');
		await ines.click('Sign out there');
		await ines.until('one session', async () => !/Sign out there/.test(await shown(ines)));
		await elsewhere.go('/documents');
		assert.match(await elsewhere.driver.getCurrentUrl(), /sign-in/);
		await elsewhere.driver.quit();
		await ines.click('Sign out', 'button');
		await ines.until('it to be over', async () => /sign-in/.test(await ines.driver.getCurrentUrl()));
	});
	it('puts a code beside the password, and asks for it when somebody signs in', async () => {
		await keeper.go('/me');
		await type(keeper, 'You sign in by', 'keeper');
		await type(keeper, 'Password', 'five mosses on a stone');
		await keeper.click('Sign in by this from now on');
		await keeper.until('a password', async () => /Another password/.test(await shown(keeper)));
		await type(keeper, 'Your password, to begin', 'five mosses on a stone');
		await keeper.click('Show me the secret');
		await keeper.css('[data-secret]');
		await keeper.isAccessible('the second factor');
		const secret = await keeper.text('[data-secret]');
		await type(keeper, 'The code that it shows now', codeAt(secret));
		await keeper.click('It works');
		await keeper.until('it to hold', async () => /You sign in by a code, too/.test(await shown(keeper)));
		await keeper.consoleIsClean();
		const elsewhere = await keeper.beside();
		await elsewhere.go('/sign-in');
		await type(elsewhere, 'Name', 'keeper');
		await type(elsewhere, 'Password', 'five mosses on a stone');
		await elsewhere.click('Sign in', 'button');
		await elsewhere.until('the question', async () =>
			/The code that your program shows now/.test(await shown(elsewhere))
		);
		await type(elsewhere, 'The code', '000 000');
		await elsewhere.click('Sign in', 'button');
		await elsewhere.until('the refusal', async () => /This code is not right/.test(await shown(elsewhere)));
		await type(elsewhere, 'The code', codeAt(secret));
		await elsewhere.click('Sign in', 'button');
		await elsewhere.until('the Desk', async () => /Keeper/.test(await elsewhere.text('nav')));
		await elsewhere.driver.quit();
	});
	it('keeps a house its last keeper, in words', async () => {
		await keeper.go('/house/people');
		await keeper.select('Role of Keeper', 'author');
		await keeper.until('the reason', async () => /A house keeps at least one keeper/.test(await shown(keeper)));
		await keeper.driver.manage().logs().get('browser');
		await keeper.go('/house/people');
		await keeper.driver.manage().logs().get('browser');
		assert.equal(
			await keeper.driver.executeScript('return document.querySelector("select[aria-label=\'Role of Keeper\']").value'),
			'keeper'
		);
		await keeper.click(await keeper.find(By.xpath('//tr[contains(., "Ines")]//button[contains(., "Take out")]')));
		await keeper.click('Take them out');
		await keeper.until('her to be gone', async () => !/Role of Ines/.test(await keeper.driver.getPageSource()));
		await keeper.consoleIsClean();
	});
});
