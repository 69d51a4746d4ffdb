import { kindWords } from '../formats/kinds.ts';
import { pluralWord } from '../core/words.ts';

/** Where a style is offered: in documents of some kinds, or in one document. Without it, everywhere. */
export type StyleUse = { readonly kinds: readonly string[] } | { readonly document: string };

/** A document in which a style is looked for. */
export interface Place {
	/** Absent for one that is not there yet. */
	readonly id?: string;
	readonly kind: string;
}

/** Whether a style is offered in a document. */
export const isMeantFor = (use: StyleUse | null | undefined, { id, kind }: Place): boolean =>
	!use || ('document' in use ? use.document === id : use.kinds.includes(kind));

/** As people read it: “only in these kinds: word-processed, open text”, “only in “Season report””. `nameOf` knows documents by id. */
export function useWords(use: StyleUse | null | undefined, nameOf: (id: string) => string | undefined): string {
	if (!use) return 'anywhere';
	if ('document' in use) return `only in ${nameOf(use.document) ? `“${nameOf(use.document)}”` : 'one document'}`;
	return `only in ${pluralWord(use.kinds.length, 'this kind', 'these kinds')}: ${use.kinds.map(kindWords).join(', ')}`;
}
