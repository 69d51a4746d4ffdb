import type { LeafValue } from '../style/types.ts';

/** Settings that put a finding right: leaves to set (or, where undefined, to unset), and rules or parts to take out. */
export interface Fix {
	readonly words: string;
	readonly leaves?: readonly { readonly place: string; readonly path: string; readonly value: LeafValue | undefined }[];
	readonly removePart?: string;
	readonly removeRule?: string;
}

/** Where a finding is to be seen; what is absent is not known, or does not matter. */
export interface Where {
	/** A cell of its table, from 0. */
	readonly r?: number;
	readonly c?: number;
	/** The part of a style (or `rule:<name>`) that it is about. */
	readonly place?: string;
	/** A cell that shows it, by the key of a table that a style is tried on and the index of the cell. */
	readonly at?: { readonly key: string; readonly cell: number };
	readonly fixes?: readonly Fix[];
}

/** Something that a person should look at: which kind, with what it is about. Its sentences come from its definition. */
export interface Finding<Code extends string = string, Args = unknown> extends Where {
	readonly kind: Code;
	readonly args: Args;
	readonly words: string;
	readonly why?: string;
	/** How bad it is, to sort by; 0 to 1. */
	readonly weight: number;
}

/** One kind of finding. Each is a file of its own, listed in `index.ts`. */
export interface FindingKind<Code extends string = string, Args = never> {
	readonly code: Code;
	/** What all of its kind are called: "total that does not add up". */
	readonly called: string;
	/** What it is found in. */
	readonly of: readonly ('style' | 'table' | 'sheet')[];
	/** What is so, with its numbers; without a full stop where `why` follows. */
	words(args: Args): string;
	/** Why that matters, as sentences. */
	why?(args: Args): string;
	weight(args: Args): number;
}

export const findingKind = <const Code extends string, Args>(kind: FindingKind<Code, Args>): FindingKind<Code, Args> =>
	kind;

/** A finding of a kind. */
export const found = <Code extends string, Args>(
	kind: FindingKind<Code, Args>,
	args: Args,
	where: Where = {}
): Finding<Code, Args> => ({
	kind: kind.code,
	args,
	words: kind.words(args),
	...(kind.why && { why: kind.why(args) }),
	weight: kind.weight(args),
	...where
});
