import type { House } from '../house.ts';
import type { Appearance } from '../cascade/look.ts';
import type { Resolved } from '../cascade/resolve.ts';
import { withLeafAt } from '../style/edit.ts';
import type { FlatStyle } from '../style/inherit.ts';
import type { Style } from '../style/types.ts';
import type { Fix } from './finding.ts';

/** A table as a style is tried on it. */
export interface Tried {
	readonly key: string;
	readonly title: string;
	readonly resolved: Resolved;
	readonly appearance: Appearance;
}

/** What the findings of a style are looked for in. */
export interface Trial {
	readonly style: Style;
	readonly flat: FlatStyle;
	readonly house: House;
	readonly tables: readonly Tried[];
	/** The style with other settings of its own, with its bases resolved. */
	readonly flatten: (style: Style) => FlatStyle;
}

/** A style with a fix applied. */
export function withFix(style: Style, fix: Fix): Style {
	let next = style;
	for (const { place, path, value } of fix.leaves ?? []) next = withLeafAt(next, place, path, value);
	if (fix.removePart) {
		const { [fix.removePart]: _, ...parts } = next.parts;
		next = { ...next, parts };
	}
	if (fix.removeRule) next = { ...next, rules: (next.rules ?? []).filter(({ name }) => name !== fix.removeRule) };
	return next;
}
