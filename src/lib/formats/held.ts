import type { Emu } from '../core/units.ts';
import { plural } from '../core/words.ts';

/** What a document can hold beside text and tables, in words. */
const WORDS = {
	picture: ['picture', 'pictures'],
	drawing: ['drawn shape', 'drawn shapes'],
	box: ['text box', 'text boxes'],
	link: ['link', 'links'],
	list: ['list item as one of a list', 'list items as those of lists'],
	note: ['note', 'notes'],
	mark: ['mark behind words', 'marks behind words'],
	comment: ['comment', 'comments'],
	change: ['tracked change', 'tracked changes'],
	field: ['field', 'fields'],
	control: ['form field', 'form fields'],
	equation: ['equation', 'equations'],
	object: ['embedded object', 'embedded objects'],
	height: ['row’s own height', 'rows’ own heights'],
	together: ['row’s staying on one page', 'rows’ staying on one page'],
	hidden: ['hidden row’s being hidden', 'hidden rows’ being hidden'],
	deleted: ['deleted row that is not taken out yet', 'deleted rows that are not taken out yet'],
	share: ['table’s width as a share of the page', 'tables’ widths as shares of the page'],
	indent: ['table’s indent', 'tables’ indents'],
	signature: ['signature', 'signatures'],
	macro: ['set of macros', 'sets of macros']
} as const;
export type HeldKind = keyof typeof WORDS;
export type Held = Map<HeldKind, number>;

export const hold = (held: Held, kind: HeldKind, count = 1): void => {
	if (count) held.set(kind, (held.get(kind) ?? 0) + count);
};

/** What a row says of itself, whatever style its table wears. */
export interface RowFacts {
	readonly height?: Emu;
	/** The row is no higher than that, whatever it holds. */
	readonly isExact?: boolean;
	/** It stands on one page. */
	readonly staysWhole?: boolean;
	readonly isHidden?: boolean;
	/** It stands again on every page that its table goes on to. */
	readonly isHeader?: boolean;
}
export const holdRow = (held: Held, { height, staysWhole, isHidden }: RowFacts): void => {
	if (height) hold(held, 'height');
	if (staysWhole) hold(held, 'together');
	if (isHidden) hold(held, 'hidden');
};

/** What a file holds as a whole; none of it belongs to single tables. */
export interface OfFile {
	readonly isSigned: boolean;
	readonly hasMacros: boolean;
}
/** What a person should know before such a file itself is written again. */
export const ownRemarksOf = ({ isSigned, hasMacros }: OfFile): string[] => [
	...(isSigned ? ['This document is signed; the signature will no longer hold for a changed file.'] : []),
	...(hasMacros ? ['This document holds macros; they stay as they are.'] : [])
];

/** Counts what the tables that are asked for hold, or the whole file. */
export function heldBy<T>(
	only: readonly number[] | undefined,
	file: OfFile,
	nodes: { readonly all: () => readonly T[]; readonly of: (table: number) => T },
	count: (node: T, held: Held) => void
): Held {
	const held: Held = new Map();
	if (!only && file.isSigned) hold(held, 'signature');
	if (!only && file.hasMacros) hold(held, 'macro');
	for (const node of only ? only.map(nodes.of) : nodes.all()) count(node, held);
	return held;
}

export const heldWords = (kind: HeldKind, count: number): string => {
	const [one, many] = WORDS[kind];
	return plural(count, one, many);
};

/** An address that a document may lead to; undefined for one that runs something, or leads nowhere in another file. */
export const safeLink = (address: string | undefined): string | undefined =>
	address !== undefined && /^(https?|mailto|tel|ftp):/i.test(address.trim()) ? address.trim() : undefined;
