import { findNoHeader } from '../../findings/no-header.ts';
import { policyRule, someFail, type Subject } from '../rule.ts';

// Lists may do without one.
const found = ({ table, purpose }: Subject) => (purpose === 'list' ? [] : findNoHeader(table.roles));

export const header = policyRule({
	name: 'header',
	words: () => 'A header row names the columns.',
	usual: {},
	measure: (subject) => found(subject).length,
	fails: someFail,
	judge: found
});
