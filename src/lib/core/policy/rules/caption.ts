import { policyRule, someFail, type Subject } from '../rule.ts';

// A table inside a cell belongs to the one around it.
const lacks = ({ caption, where }: Subject): boolean => !caption?.trim() && where !== 'nested';

export const caption = policyRule({
	name: 'caption',
	words: () => 'Tables have a caption.',
	usual: {},
	measure: (subject) => Number(lacks(subject)),
	fails: someFail,
	judge: (subject) => (lacks(subject) ? [{ words: 'it has no caption' }] : [])
});
