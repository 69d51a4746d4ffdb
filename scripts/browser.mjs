import { ensureBrowser, ensureBuild, freePort, ownDatabase, prepareDatabase, serve } from './machine.mjs';

/** How Debian's Chromium is started where there is no screen and no network; for the browser tests and the screenshots. */
export const CHROMIUM = '/usr/bin/chromium';
export const CHROMEDRIVER = '/usr/bin/chromedriver';
export const CHROMIUM_ARGUMENTS = [
	'--headless=new',
	'--no-sandbox',
	'--disable-gpu',
	'--disable-quic',
	'--disable-dev-shm-usage',
	'--no-first-run',
	'--disable-background-networking',
	'--disable-component-update',
	'--disable-sync',
	'--window-size=1280,800'
];

/** The application with the demo house in a database that is gone afterwards, and a browser whose window is 1280 × 800. */
export async function demoInBrowser({ stdio = 'ignore' } = {}) {
	ensureBrowser();
	ensureBuild();
	const { Builder } = await import('selenium-webdriver');
	const { Options, ServiceBuilder } = await import('selenium-webdriver/chrome.js');
	const database = await ownDatabase({ throwAway: true });
	prepareDatabase(database.url, { demo: true });
	const { origin, child } = await serve(database.url, { port: await freePort(), stdio });
	process.on('exit', () => {
		child.kill('SIGKILL');
		database.stop();
	});
	const options = new Options();
	options.setChromeBinaryPath(CHROMIUM);
	options.addArguments(...CHROMIUM_ARGUMENTS, '--hide-scrollbars', '--force-device-scale-factor=1');
	const driver = await new Builder()
		.forBrowser('chrome')
		.setChromeOptions(options)
		.setChromeService(new ServiceBuilder(CHROMEDRIVER))
		.build();
	// The window's size counts the browser's own edges; the page is to be 1280 × 800.
	const [width, height] = await driver.executeScript('return [innerWidth, innerHeight]');
	await driver
		.manage()
		.window()
		.setRect({ width: 1280 + 1280 - width, height: 800 + 800 - height });
	return { origin, driver };
}
