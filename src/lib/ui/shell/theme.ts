/** How the application is coloured: as the system says, or always by day, or by night. */
export const THEMES = ['system', 'light', 'dark'] as const;
export type Theme = (typeof THEMES)[number];

/** Kept by the browser, so that a page comes in its colours at once. */
export const THEME_COOKIE = 'heptarch-theme';
export const themeOf = (said: string | undefined): Theme => THEMES.find((theme) => theme === said) ?? 'system';

const YEAR = 365 * 24 * 60 * 60;
export function wearTheme(theme: Theme): void {
	document.documentElement.dataset.theme = theme;
	document.cookie = `${THEME_COOKIE}=${theme};path=/;max-age=${YEAR};samesite=lax`;
}
