/** The configurations of PostgreSQL's text search (12.6) by the language of a house's locale. */
const SEARCHED: Readonly<Record<string, string>> = {
	ar: 'arabic',
	da: 'danish',
	de: 'german',
	el: 'greek',
	en: 'english',
	es: 'spanish',
	fi: 'finnish',
	fr: 'french',
	hu: 'hungarian',
	it: 'italian',
	nb: 'norwegian',
	nl: 'dutch',
	no: 'norwegian',
	pt: 'portuguese',
	ro: 'romanian',
	ru: 'russian',
	sv: 'swedish',
	tr: 'turkish'
};
/** How text is searched in a house whose figures and dates are written as a locale (BCP 47) has them. */
export const searchedAs = (locale: string): string => SEARCHED[locale.split('-')[0]!] ?? 'simple';
