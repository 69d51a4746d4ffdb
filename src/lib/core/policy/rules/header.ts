import { findNoHeader } from '../../findings/no-header.ts';
import { policyRule } from '../rule.ts';

export const header = policyRule({
	name: 'header',
	words: () => 'A header row names the columns.',
	// Lists may do without one.
	judge: ({ table, purpose }) => (purpose === 'list' ? [] : findNoHeader(table.roles))
});
