/** What several figures come to. */
export const SUMMARIES = ['sum', 'mean', 'count', 'least', 'greatest'] as const;
export type Summary = (typeof SUMMARIES)[number];
/** Each of them in a word. */
export const SUMMARY_WORDS: Readonly<Record<Summary, string>> = {
	sum: 'sum',
	mean: 'mean',
	count: 'how many',
	least: 'least',
	greatest: 'greatest'
};
