import { policyRule } from '../rule.ts';

export const caption = policyRule({
	name: 'caption',
	words: () => 'Tables have a caption.',
	// A table inside a cell belongs to the one around it.
	judge: ({ caption, where }) => (caption?.trim() || where === 'nested' ? [] : [{ words: 'it has no caption' }])
});
