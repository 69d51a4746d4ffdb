import { PROPERTIES } from '../properties/index.ts';
import type { Leaf } from '../properties/property.ts';
import { partWords } from './parts.ts';

/** A leaf of a part, to be found by its words. */
export interface Setting {
	readonly part: string;
	readonly leaf: Leaf;
	/** "header: size". */
	readonly words: string;
}

/** Every leaf that each of these parts can set. */
export const allSettings = (parts: readonly string[]): Setting[] =>
	parts.flatMap((part) =>
		PROPERTIES.flatMap(({ leaves }) =>
			leaves.flatMap((leaf) =>
				leaf.only && leaf.only !== part ? [] : [{ part, leaf, words: `${partWords(part)}: ${leaf.words}` }]
			)
		)
	);

/**
 * The settings that all typed words are in, those first in which they begin words, then the shorter ones. A word may be
 * anywhere in the words of the part or the leaf, or in those of its section.
 */
export function findSettings(settings: readonly Setting[], typed: string, most: number): Setting[] {
	const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean);
	if (!wanted.length) return [];
	const found = settings.flatMap((setting) => {
		const words = `${setting.words} ${setting.leaf.label}`.toLowerCase();
		let begun = 0;
		for (const one of wanted) {
			const at = words.indexOf(one);
			if (at < 0) return [];
			if (at === 0 || words.includes(` ${one}`)) begun++;
		}
		return [{ setting, begun }];
	});
	return found
		.sort((a, b) => b.begun - a.begun || a.setting.words.length - b.setting.words.length)
		.slice(0, most)
		.map(({ setting }) => setting);
}
