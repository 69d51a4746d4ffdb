import type { Appearance } from '../cascade/look.ts';
import type { House, Resolved } from '../cascade/resolve.ts';
import { withLeafAt } from '../style/edit.ts';
import type { FlatStyle } from '../style/inherit.ts';
import type { LeafValue, Style } from '../style/types.ts';

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

/** Settings that put a finding right: leaves to set (or, where undefined, to unset), and rules or parts to take out. */
export interface Fix {
	readonly words: string;
	readonly leaves?: readonly { readonly place: string; readonly path: string; readonly value: LeafValue | undefined }[];
	readonly removePart?: string;
	readonly removeRule?: string;
}

/** Something about a style that a designer should know: what, where, why, and what would put it right. */
export interface Finding {
	readonly kind: string;
	readonly what: string;
	readonly why: string;
	/** The part (or `rule:<name>`) that it is about. */
	readonly place?: string;
	/** A cell that shows it, by the key of the table and the index of the cell. */
	readonly at?: { readonly key: string; readonly cell: number };
	readonly fixes: readonly Fix[];
	/** How bad it is, to sort by; 0 to 1. */
	readonly weight: number;
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
