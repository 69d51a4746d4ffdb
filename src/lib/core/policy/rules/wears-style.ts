import { policyRule, type Subject } from '../rule.ts';

interface Settings {
	readonly styles: readonly string[];
}

const isWanted = (wears: string | null | undefined, { styles }: Settings): boolean =>
	wears !== null && wears !== undefined && styles.includes(wears);

export const wearsStyle = policyRule({
	name: 'wears-style',
	words: ({ styles }: Settings) =>
		styles.length
			? `Tables wear ${styles.map((style) => `“${style}”`).join(' or ')}.`
			: 'Tables wear one of some styles.',
	settings: {
		styles: { type: 'array', minItems: 1, maxItems: 1_000, items: { type: 'string', minLength: 1, maxLength: 200 } }
	},
	usual: { styles: [] },
	renamed: (settings, call) => ({ ...settings, styles: settings.styles.flatMap((style) => call(style) ?? []) }),
	measure: ({ wears }: Subject) => wears ?? null,
	fails: (measure, settings) => !isWanted(measure as string | null, settings),
	judge: ({ wears }, settings) =>
		isWanted(wears, settings)
			? []
			: [
					{
						words:
							wears === undefined ? 'it wears no house style' : `it wears “${wears}”, which is none of those wanted`
					}
				],
	mend: {
		words: ({ styles: [first] }) => (first === undefined ? undefined : `Give it “${first}”`),
		of: ({ wears }, settings) =>
			isWanted(wears, settings) || !settings.styles[0] ? undefined : { style: settings.styles[0] }
	}
});
