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
