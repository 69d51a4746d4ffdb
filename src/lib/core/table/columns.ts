export const COLUMN_KINDS = ['text', 'code', 'count', 'quantity', 'money', 'percent', 'date', 'mixed'] as const;
export type ColumnKind = (typeof COLUMN_KINDS)[number];

/** Kinds whose cells are numbers, and so line up at the end. */
export const NUMERIC_KINDS: ReadonlySet<ColumnKind> = new Set(['count', 'quantity', 'money', 'percent']);
