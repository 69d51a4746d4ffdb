import type { House } from '../core/house.ts';
import type { Policy } from '../core/policy/policy.ts';

/** What a house decides for all its styles. */
export interface HouseState extends House {
	/** BCP 47: how figures and dates are written. */
	readonly locale: string;
	/** What it wants of its tables; styles by their ids, and by name where the Stylebook has none of it. */
	readonly policy?: Policy | null;
}

/** A policy that wants nothing yet. */
export const EMPTY_POLICY: Policy = { format: 'heptarch-policy', version: 1, rules: [] };

/** Locales that a house can choose from; what their figures look like is shown beside them. */
export const LOCALES = [
	'en-GB',
	'en-US',
	'de-DE',
	'de-CH',
	'fr-FR',
	'es-ES',
	'it-IT',
	'nl-NL',
	'pt-PT',
	'sv-SE',
	'da-DK',
	'pl-PL'
] as const;

/** A language and country as people call them, in English. */
export const localeWords = (locale: string): string =>
	new Intl.DisplayNames(['en'], { type: 'language' }).of(locale) ?? locale;

/** So many days, a hundred years, are the most for which a house says that it keeps its steps. */
export const MOST_KEPT_DAYS = 36_525;
