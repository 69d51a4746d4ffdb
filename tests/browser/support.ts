import assert from 'node:assert/strict';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, openSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, Key, logging, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';
import { sql, type RawBuilder } from 'kysely';

import { CHROMEDRIVER, CHROMIUM, CHROMIUM_ARGUMENTS } from '../../scripts/browser.mjs';
import { freePort, serve } from '../../scripts/machine.mjs';
import { connectDoor } from '../../src/lib/server/people/door.ts';
import { makePerson } from '../../src/lib/server/people/entrance.ts';
import { beginHouse } from '../../src/lib/server/people/founding.ts';
import { makeLink } from '../../src/lib/server/people/links.ts';
import { join as joinHouse } from '../../src/lib/server/people/members.ts';
import type { Role } from '../../src/lib/workbench/roles.ts';
import { asOwner, ownDatabase } from '../database.ts';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
/** A busy machine is slow; only what never comes is a failure. */
const PATIENCE = 60_000;

/** Files run side by side: each looks for its ports among its own, so that none is asked for what another one started. */
const FIRST_PORT = 10_000 + (process.pid % 400) * 50;

type House = Parameters<typeof ownDatabase>[0];

/** The built application on a database of its own. */
export class Application {
	private constructor(
		readonly origin: string,
		private readonly url: string,
		private readonly child: ChildProcess,
		private readonly folder: string
	) {}

	/**
	 * Most tests look at screens: for them the application is one process. With settings, what an installation runs is started:
	 * a web process with a hand and a worker.
	 */
	static async start(house: House, env?: Readonly<Record<string, string>>): Promise<Application> {
		const { db, url } = await ownDatabase(house);
		await db.destroy();
		return Application.on(url, env);
	}
	private static async on(url: string, env?: Readonly<Record<string, string>>): Promise<Application> {
		const folder = mkdtempSync(join(tmpdir(), 'heptarch-application-'));
		const log = openSync(join(folder, 'log'), 'w');
		const { origin, child } = await serve(url, {
			port: await freePort(FIRST_PORT),
			stdio: ['ignore', log, log],
			...(env ? { env: { HEPTARCH_HANDS: '1', ...env } } : { program: 'build/index.js' })
		});
		process.on('exit', () => child.kill('SIGKILL'));
		return new Application(origin, url, child, folder);
	}

	/** Another web process of the same installation. */
	async another(): Promise<Application> {
		return Application.on(this.url, {});
	}
	/** Every connection of these processes to PostgreSQL that listens is lost. */
	loseListeners(): Promise<void> {
		return this.behind(sql`select pg_terminate_backend(pid) from pg_stat_activity
			where datname = current_database() and query ilike 'listen heptarch%'`);
	}
	/** Something is done to the database behind its back. */
	async behind(statement: RawBuilder<unknown>): Promise<void> {
		await asOwner(this.url, (owner) => statement.execute(owner));
	}

	/** The cookie of somebody who is signed in: the keeper, or somebody new in a role, of this house or another. */
	async signedIn(role?: Role, inHouse?: string, name = `The ${role}`): Promise<string> {
		const door = connectDoor(this.url);
		const { personId, houseId } = await door.selectFrom('members').selectAll().executeTakeFirstOrThrow();
		let person = personId;
		if (role) {
			person = await makePerson(door, name);
			await joinHouse(door, inHouse ?? houseId, person, role);
		}
		const token = await makeLink(door, { kind: 'entry', person });
		await door.destroy();
		const answer = await fetch(`${this.origin}/api/enter/${token}`, {
			method: 'POST',
			headers: { 'Content-Type': 'application/json', Origin: this.origin },
			body: '{}'
		});
		assert.equal(answer.status, 200, await answer.text());
		return answer.headers
			.getSetCookie()
			.map((cookie) => cookie.split(';')[0]!)
			.join('; ');
	}
	/** Who is signed in by a cookie. */
	async personOf(cookie: string): Promise<{ id: string }> {
		const door = connectDoor(this.url);
		const token = decodeURIComponent(/session_token=([^;]+)/.exec(cookie)![1]!).split('.')[0]!;
		const { userId } = await door
			.selectFrom('sessions')
			.select('userId')
			.where('token', '=', token)
			.executeTakeFirstOrThrow();
		await door.destroy();
		return { id: userId };
	}
	/** Another house beside the one that there is; its id. */
	async anotherHouse(name: string): Promise<string> {
		const door = connectDoor(this.url);
		const house = await beginHouse(door, name, await makePerson(door, `The keeper of ${name}`));
		await door.destroy();
		return house;
	}

	/** Asks it to stop in good order; resolves with how long it took, in milliseconds. */
	async end(): Promise<number> {
		const began = Date.now();
		const ended = new Promise((resolve) => this.child.once('exit', resolve));
		this.child.kill('SIGTERM');
		await ended;
		return Date.now() - began;
	}

	/** Stops it; throws where it complained of anything. */
	stop(): void {
		this.child.kill('SIGKILL');
		const log = readFileSync(join(this.folder, 'log'), 'utf8');
		rmSync(this.folder, { recursive: true, force: true });
		assert.doesNotMatch(log, /"level":(50|60)|Error:/, 'the log of the server is clean');
	}
}

/** A browser, with a folder for what it downloads. */
export async function openBrowser(downloads = tmpdir()): Promise<WebDriver> {
	const options = new Options();
	options.setChromeBinaryPath(CHROMIUM);
	options.addArguments(...CHROMIUM_ARGUMENTS);
	options.setUserPreferences({ 'download.default_directory': downloads, 'download.prompt_for_download': false });
	const wanted = new logging.Preferences();
	wanted.setLevel(logging.Type.BROWSER, logging.Level.ALL);
	options.setLoggingPrefs(wanted);
	const driver = await new Builder()
		.forBrowser('chrome')
		.setChromeOptions(options)
		.setChromeService(new ServiceBuilder(CHROMEDRIVER))
		.build();
	await driver.manage().window().setRect({ width: 1280, height: 940 });
	return driver;
}

/** A browser on the application, with the few things that the tests do in it. */
export class Page {
	private constructor(
		readonly driver: WebDriver,
		private readonly application: Application,
		readonly downloads: string
	) {}
	get origin(): string {
		return this.application.origin;
	}

	/** Opens a browser on an application of its own, with the demo house or an empty one. */
	static async open(house: House, env?: Readonly<Record<string, string>>): Promise<Page> {
		return Page.on(await Application.start(house, env));
	}
	/** Opens a browser on an application, as somebody in a role of its house where one is given. */
	static async on(application: Application, cookie?: string): Promise<Page> {
		const downloads = mkdtempSync(join(tmpdir(), 'heptarch-downloads-'));
		const page = new Page(await openBrowser(downloads), application, downloads);
		if (cookie) await page.signIn(cookie);
		return page;
	}
	/** Somebody is signed in here from now on, whoever it was before. */
	async signIn(cookie: string): Promise<void> {
		await this.driver.get(`${this.origin}/sign-in`);
		await this.driver.manage().deleteAllCookies();
		for (const pair of cookie.split('; ')) {
			const [name, value] = pair.split(/=(.*)/s) as [string, string];
			await this.driver.manage().addCookie({ name, value, httpOnly: true, sameSite: 'Lax' });
		}
	}

	/** Somebody else at the same application: another browser, which knows nothing of this one. */
	async beside(): Promise<Page> {
		return new Page(await openBrowser(this.downloads), this.application, this.downloads);
	}

	/** As if another window lay over this one, until the next page: it does not hear of what others do meanwhile. */
	async lookAway(): Promise<void> {
		await this.driver.executeScript(
			`Object.defineProperty(document, 'visibilityState', { value: 'hidden' }); document.dispatchEvent(new Event('visibilitychange'));`
		);
	}

	/** Closes both; throws where the server complained of anything meanwhile. */
	async close(): Promise<void> {
		await this.driver.quit();
		rmSync(this.downloads, { recursive: true, force: true });
		this.application.stop();
	}

	/** Goes to an address and waits until the page is alive (hydrated). */
	async go(path: string): Promise<void> {
		await this.driver.get(this.origin + path);
		await this.driver.wait(() => this.driver.executeScript('return document.readyState === "complete"'), PATIENCE);
		await this.driver.sleep(400);
	}
	find(locator: By): Promise<WebElement> {
		return this.driver.wait(until.elementLocated(locator), PATIENCE) as unknown as Promise<WebElement>;
	}
	css(selector: string): Promise<WebElement> {
		return this.find(By.css(selector));
	}
	/** A button, link, tab or option by (part of) its text. */
	named(text: string, tag = '*[self::button or self::a]'): Promise<WebElement> {
		return this.find(By.xpath(`//${tag}[contains(normalize-space(.), ${JSON.stringify(text)})]`));
	}
	async click(target: string | WebElement, tag?: string): Promise<void> {
		const element = typeof target === 'string' ? await this.named(target, tag) : target;
		await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center", inline: "center" })', element);
		await this.driver.wait(until.elementIsEnabled(element), PATIENCE);
		await element.click();
	}
	async key(...keys: string[]): Promise<void> {
		await this.driver.executeScript('document.activeElement?.blur?.()');
		await this.driver
			.actions()
			.sendKeys(...keys)
			.perform();
	}
	async chord(...keys: string[]): Promise<void> {
		await this.driver.executeScript('document.activeElement?.blur?.()');
		const actions = this.driver.actions();
		for (const key of keys) actions.keyDown(key);
		for (const key of [...keys].reverse()) actions.keyUp(key);
		await actions.perform();
	}
	async until(what: string, condition: () => Promise<boolean>): Promise<void> {
		await this.driver.wait(async () => condition().catch(() => false), PATIENCE, `waited for: ${what}`);
	}
	text(selector: string): Promise<string> {
		return this.driver.executeScript<string>('return document.querySelector(arguments[0])?.innerText ?? ""', selector);
	}
	/** A computed style property of the element that holds this text in a table cell. */
	cellStyle(table: string, text: string, property: string): Promise<string> {
		return this.driver.executeScript<string>(
			`const cell = [...document.querySelectorAll(arguments[0] + ' .layer:not([aria-hidden]) .cell')].find((cell) => cell.textContent.replace(/\\u200b/g, '').trim() === arguments[1]);
			return cell ? getComputedStyle(cell)[arguments[2]] : 'no such cell';`,
			table,
			text,
			property
		);
	}
	async chooseFiles(label: string, ...paths: string[]): Promise<void> {
		const input = await this.css(`input[type=file][aria-label="${label}"]`);
		await input.sendKeys(paths.join('\n'));
	}
	async select(label: string, value: string): Promise<void> {
		const element = await this.css(`select[aria-label="${label}"]`);
		await this.driver.executeScript(
			'arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event("change", { bubbles: true }))',
			element,
			value
		);
	}
	/** Types into a field and leaves it. */
	async fill(label: string, value: string): Promise<void> {
		const element = await this.css(`input[aria-label="${label}"]`);
		await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
		await element.click();
		await element.sendKeys(Key.chord(Key.CONTROL, 'a'), value, Key.TAB);
	}
	/** The downloaded file, once it is whole. */
	async download(): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
		let name: string | undefined;
		await this.until('a download', async () => {
			name = readdirSync(this.downloads).find((file) => !file.endsWith('.crdownload') && !file.startsWith('.'));
			return name !== undefined;
		});
		const path = join(this.downloads, name!);
		const bytes = new Uint8Array(readFileSync(path));
		rmSync(path);
		return { name: name!, bytes };
	}
	/**
	 * No serious finding of axe-core on what is shown now, targets of at least 24 pixels among them. Cells out of the spotlight
	 * are pale on purpose, and as high as their document has them; so is the choice of a role beside a row, which *What it is*
	 * offers in full size.
	 */
	async isAccessible(what: string): Promise<void> {
		await this.driver.executeScript(`${axeSource}; window.axe = axe;`).catch(() => undefined);
		const found = await this.driver.executeAsyncScript<
			{ id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[]
		>(
			`const done = arguments[arguments.length - 1];
			axe.configure({ rules: [{ id: 'target-size', selector: ':not(.cell, .gutter)' }] });
			axe.run({ exclude: ['.cell.dim'] }, { resultTypes: ['violations'], rules: { 'target-size': { enabled: true } } }).then(({ violations }) => done(violations.map(({ id, impact, nodes }) => ({ id, impact, nodes: nodes.slice(0, 3).map(({ html, failureSummary }) => ({ html: html.slice(0, 200), failureSummary })) }))));`
		);
		const serious = found.filter(({ impact }) => impact === 'serious' || impact === 'critical');
		assert.deepEqual(serious, [], `${what}: ${JSON.stringify(serious, null, 1)}`);
	}
	/** Nothing was complained about in the browser's console since the last time. */
	async consoleIsClean(): Promise<void> {
		const entries = await this.driver.manage().logs().get(logging.Type.BROWSER);
		const bad = entries.filter(({ level }) => level.value >= logging.Level.WARNING.value).map(({ message }) => message);
		assert.deepEqual(bad, []);
	}
}

export { By, Key, until };
