import { isHeader, type RowRole } from '../roles/index.ts';
import { findingKind, found, type Finding } from './finding.ts';

export const noHeader = findingKind({
	code: 'no-header',
	called: 'no header row',
	of: ['table'],
	words: () => 'no row is recognised as a header',
	weight: () => 0.5
});

/** A table of more than two rows none of which names the columns. */
export const findNoHeader = (roles: readonly RowRole[]): Finding[] =>
	roles.length > 2 && !roles.some(isHeader) ? [found(noHeader, {})] : [];
