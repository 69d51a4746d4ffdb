import { findNotAligned } from '../../findings/not-aligned.ts';
import { policyRule } from '../rule.ts';

export const figuresAligned = policyRule({
	name: 'figures-aligned',
	words: () => 'Figures stand at the end of their cells.',
	judge: ({ table, appearance }) => findNotAligned(table, appearance)
});
