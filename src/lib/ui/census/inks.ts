import type { ChartOption } from './charts.ts';

/** The colours of the application as they are in the theme that is worn; a chart takes no variables. */
export interface ChartInks {
	readonly ink: string;
	readonly quiet: string;
	readonly hairline: string;
	readonly sheet: string;
	readonly picked: string;
	readonly accent: string;
	readonly warning: string;
}

/** A chart as it is drawn in the inks of a theme. */
export type DrawChart = (inks: ChartInks) => ChartOption;

const NAMES = ['ink', 'quiet', 'hairline', 'sheet', 'picked', 'accent', 'warning'] as const;

export function inksOf(element: HTMLElement): ChartInks {
	const probe = document.createElement('span');
	element.append(probe);
	const inks = Object.fromEntries(
		NAMES.map((name) => {
			probe.style.color = `var(--color-${name})`;
			return [name, getComputedStyle(probe).color];
		})
	);
	probe.remove();
	return inks as unknown as ChartInks;
}

/** Calls when the theme becomes another: somebody chose it, or the system did. Returns how to stop. */
export function whenThemeChanges(run: () => void): () => void {
	const seeing = new MutationObserver(run);
	seeing.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
	const night = matchMedia('(prefers-color-scheme: dark)');
	night.addEventListener('change', run);
	return () => {
		seeing.disconnect();
		night.removeEventListener('change', run);
	};
}
