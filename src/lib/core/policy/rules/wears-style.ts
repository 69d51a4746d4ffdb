import { policyRule } from '../rule.ts';

export const wearsStyle = policyRule({
	name: 'wears-style',
	words: ({ styles }: { readonly styles: readonly string[] }) =>
		`Tables wear ${styles.map((style) => `“${style}”`).join(' or ')}.`,
	settings: {
		styles: { type: 'array', minItems: 1, maxItems: 1_000, items: { type: 'string', minLength: 1, maxLength: 200 } }
	},
	judge: ({ wears }, { styles }) =>
		wears !== undefined && styles.includes(wears)
			? []
			: [
					{
						words:
							wears === undefined ? 'it wears no house style' : `it wears “${wears}”, which is none of those wanted`
					}
				]
});
