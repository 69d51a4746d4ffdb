const rules = new Intl.PluralRules('en');
const numbers = new Intl.NumberFormat('en-GB');

/** A count with what is counted: "1 row", "2 rows", "1,200 cells". */
export const plural = (count: number, one: string, many = `${one}s`): string =>
	`${numbers.format(count)} ${pluralWord(count, one, many)}`;

/** What is counted, without the count. */
export const pluralWord = (count: number, one: string, many = `${one}s`): string =>
	rules.select(count) === 'one' ? one : many;

/** "a, b and c". */
export const listed = (words: readonly string[]): string =>
	words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
