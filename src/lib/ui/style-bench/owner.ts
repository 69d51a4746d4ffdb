import type { LeafValue, LinePlace } from '$lib/core/style/types.ts';

/** Where a leaf's value comes from: set here, from a base style, from a weaker part, or from nobody. */
export interface LeafSource {
	readonly value: LeafValue | undefined;
	readonly isSet: boolean;
	/** In words: "set here", "House base", "ground", "nobody". */
	readonly from: string;
	/** The weaker part that it comes from. */
	readonly part?: string;
	/** Whether it comes from a style that this one builds on. */
	readonly isInherited?: boolean;
}

export type LineState = 'set' | 'none' | 'untouched';

/** Whose properties the property sheet shows and changes: a part of a style, or the touches of some cells. */
export interface PropertyOwner {
	/** What is shown; another place, and the sheet starts anew. */
	readonly place: string;
	/** What it is called. */
	readonly words: string;
	readonly inks: Readonly<Record<string, string>>;
	readonly roles: readonly string[];
	readonly house: { readonly locale: string };
	/** The style that properties can be pushed up to. */
	readonly base?: { readonly definition: { readonly name: string } } | undefined;
	readonly lineStates: Readonly<Record<LinePlace, LineState>>;
	source(path: string): LeafSource;
	set(path: string, value: LeafValue | undefined): void;
	setAll(leaves: readonly (readonly [path: string, value: LeafValue | undefined])[], words: string): void;
	/** The leaf whose field is to have the focus, once it is there. */
	sought?: string | undefined;
	/** Goes to the part that a value comes from. */
	choose(part: string): void;
}
