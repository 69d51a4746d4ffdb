/** What several figures come to. */
export const SUMMARIES = ['sum', 'mean', 'count', 'least', 'greatest'] as const;
export type Summary = (typeof SUMMARIES)[number];
