import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { ONE, type Role } from '../../src/lib/workbench/roles.ts';
import { Application, By, Key, Page } from './support.ts';

/**
 * Works every control that can be worked on a page, and in the dialogs and panels that come up by it, once; resolves with
 * what was refused, by the control that asked for it. A control that leads elsewhere ends it, to be called again.
 */
const WORK_ALL = `
	const [done, resolve] = arguments;
	const seen = new Set(done);
	const here = location.pathname + location.search;
	const pause = (time) => new Promise((resolve) => setTimeout(resolve, time));
	let now = '';
	if (!window.refusals) {
		window.refusals = [];
		const ask = window.fetch;
		window.fetch = async (...all) => {
			const by = now;
			const answer = await ask(...all);
			if (answer.status === 403) window.refusals.push(by + ': ' + (all[1]?.method ?? 'GET') + ' ' + new URL(all[0].url ?? all[0], location.href).pathname);
			return answer;
		};
	}
	const CONTROLS = 'button, select, textarea, input:not([type=file]), [role=tab], [role=option], [role=radio], [contenteditable=true]';
	const wordsOf = (control) => control.localName + ' ' + (control.getAttribute('aria-label') || control.labels?.[0]?.textContent || control.textContent || control.name).trim().replace(/\\s+/g, ' ').slice(0, 60);
	const next = () => {
		const root = document.querySelector('dialog[open]') ?? document.body;
		const controls = [...root.querySelectorAll(CONTROLS)];
		const closing = root === document.body ? [] : controls.filter((control) => /^(Close|Not yet|Not now|Stay here|Leave .*)$/.test(control.getAttribute('aria-label') || control.textContent.trim()));
		for (const control of [...controls.filter((control) => !closing.includes(control)), ...closing]) {
			if (control.matches(':disabled') || control.closest('[inert], nav, [data-cell]') || !control.checkVisibility()) continue;
			// Of things in lists, one of each kind is enough.
			const key = (root === document.body ? '' : 'in a dialog: ') + wordsOf(control).replace(/\\d+/g, '#');
			if (seen.has(key) && !closing.includes(control)) continue;
			seen.add(key);
			return [control, key];
		}
		return undefined;
	};
	(async () => {
		for (let found; (found = next()); ) {
			const [control, key] = found;
			now = key;
			sessionStorage.setItem('worked', JSON.stringify([...seen]));
			if (control.matches('select')) {
				const other = [...control.options].find((option) => !option.selected && !option.disabled);
				if (other) { control.value = other.value; control.dispatchEvent(new Event('change', { bubbles: true })); }
			} else if (control.matches('textarea, input:not([type=checkbox], [type=radio], [type=button])')) {
				control.focus();
				control.value = control.type === 'number' || control.inputMode === 'numeric' ? '3' : control.type === 'color' ? '#123456' : '2';
				control.dispatchEvent(new Event('input', { bubbles: true }));
				control.dispatchEvent(new Event('change', { bubbles: true }));
				control.blur();
			} else control.click();
			await pause(60);
			if (location.pathname + location.search !== here) break;
		}
		await pause(400);
		resolve([[...seen], window.refusals, location.pathname + location.search === here]);
	})();`;

/** What somebody may not do is greyed, wherever it stands: nothing that can be worked is refused by the server. */
describe('what can be worked', () => {
	let application: Application;
	const pages = new Map<Role, Page>();
	const at = new Map<string, string>();
	before(async () => {
		application = await Application.start('demo', {});
		for (const role of ['reader', 'author', 'designer'] as const)
			pages.set(role, await Page.on(application, await application.signedIn(role)));
		const reader = pages.get('reader')!;
		await reader.go('/');
		const ask = <T>(path: string) =>
			reader.driver.executeAsyncScript<T>(
				'fetch(arguments[0]).then((answer) => answer.json()).then(arguments[1])',
				path
			);
		const { documents } = await ask<{ documents: { id: string; name: string; kind: string }[] }>('/api/documents');
		const report = documents.find(({ name }) => name === 'Season report 2031')!.id;
		const drawing = documents.find(({ kind }) => kind === 'svg')!.id;
		const { items: styles } = await ask<{ items: { id: string; name: string }[] }>('/api/v1/styles');
		const style = styles.find(({ name }) => name === 'Season Ledger')!.id;
		at.set('document', `/documents/${report}`).set('bench', `/documents/${report}/bench?table=0`);
		at.set('sheet', `/documents/${drawing}/sheet`).set('style', `/stylebook/${style}`);
		at.set('editions', `/stylebook/${style}/editions`);
	});
	after(async () => {
		for (const [role, page] of pages) if (role !== 'reader') await page.driver.quit();
		await pages.get('reader')!.close();
	});

	async function refusedOn(role: Role, path: string) {
		const page = pages.get(role)!;
		let done: string[] = [];
		const refused: string[] = [];
		for (let times = 0; times < 40; times++) {
			await page.go(path);
			await page.driver.manage().setTimeouts({ script: 120_000 });
			try {
				const [seen, refusals, isDone] = await page.driver.executeAsyncScript<[string[], string[], boolean]>(
					WORK_ALL,
					done
				);
				done = seen;
				refused.push(...refusals);
				if (isDone) break;
			} catch (error) {
				// It led to another page at once.
				const worked = await page.driver.executeScript<string>('return sessionStorage.getItem("worked")');
				if (!worked) throw error;
				done = JSON.parse(worked) as string[];
			}
		}
		await page.driver.manage().logs().get('browser');
		assert.ok(done.length, 'there is something to work');
		return [...new Set(refused)];
	}
	const PLACES: readonly (readonly [Role, readonly string[]])[] = [
		['reader', ['document', 'bench', 'sheet', 'style', 'editions', '/documents', '/stylebook', '/census']],
		['reader', ['/house', '/house/policy']],
		['author', ['/stylebook']],
		['designer', ['/house']]
	];
	for (const [role, places] of PLACES)
		for (const place of places)
			it(`by ${ONE[role]} at ${place} is not refused`, async () => {
				assert.deepEqual(await refusedOn(role, at.get(place) ?? place), []);
			});

	it('is not begun with keys or the pointer either: the reason is said, and nothing changes', async () => {
		const page = pages.get('reader')!;
		await page.go(at.get('bench')!);
		const cell = await page.css('[role=grid] [role=gridcell]');
		assert.equal(await cell.getAttribute('aria-readonly'), 'true');
		const before = await page.text('[role=grid]');
		await page.driver.actions().doubleClick(cell).sendKeys('typed', Key.ENTER, Key.DELETE).perform();
		await page.until('the reason', async () => /This is for an author/.test(await page.text('body')));
		assert.equal((await page.driver.findElements(By.css('[data-editing]'))).length, 0);
		assert.equal(await page.text('[role=grid]'), before);
		assert.equal(await page.text('[data-saved]'), 'saved');
		await page.go(at.get('style')!);
		await page.key('l');
		assert.equal((await page.driver.findElements(By.css('[aria-label="Pen"], [data-run]'))).length, 0);
		await page.consoleIsClean();
	});
});
