import type { Measure } from './figure.ts';

/** Signs that several currencies share, by the region that writes them so (CLDR 44, *currencyData*); the first is for all others. */
const SHARED: Readonly<Record<string, Readonly<Record<string, string>>>> = {
	$: { '': 'USD', US: 'USD', CA: 'CAD', AU: 'AUD', NZ: 'NZD', HK: 'HKD', SG: 'SGD', MX: 'MXN', AR: 'ARS', CL: 'CLP' },
	'¥': { '': 'JPY', JP: 'JPY', CN: 'CNY' },
	kr: { SE: 'SEK', NO: 'NOK', DK: 'DKK', IS: 'ISK', FO: 'DKK' }
};
const READ_AS: Readonly<Record<string, string>> = { USD: '$', JPY: '¥', '¤': 'kr' };

/**
 * What money is of in a table that writes it with a sign of several currencies: the one of the locale's region. Undefined
 * for a sign that says nothing without a locale, such as kr. `texts` are the table's, which may name a currency by its code.
 */
export function localMeasure(
	measure: Measure,
	locale: string | undefined,
	texts: readonly string[]
): Measure | undefined {
	if (measure.kind !== 'money') return measure;
	const sign = READ_AS[measure.currency];
	if (!sign || texts.some((text) => text.includes(measure.currency))) return measure;
	if (!texts.some((text) => text.includes(sign))) return measure.currency === '¤' ? undefined : measure;
	const region = locale === undefined ? undefined : new Intl.Locale(locale).maximize().region;
	const currency = SHARED[sign]![region ?? ''] ?? SHARED[sign]![''];
	return currency ? { kind: 'money', currency } : undefined;
}
