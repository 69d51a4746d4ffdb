import { plural } from '../../words.ts';
import { policyRule } from '../rule.ts';

export const noTouches = policyRule({
	name: 'no-touches',
	words: () => 'Nothing is set against the style.',
	judge: ({ touches }) => {
		const [first] = touches;
		return first
			? [{ r: first.r, c: first.c, words: `${plural(touches.length, 'cell')} of its own set against its style` }]
			: [];
	}
});
