/** What kinds of documents are called. */
export const KIND_WORDS: Readonly<Record<string, string>> = {
	docx: 'word-processed',
	odt: 'open text',
	html: 'web page',
	csv: 'rows',
	svg: 'drawing',
	json: 'table'
};

/** Where a document is worked on. */
export const addressOf = ({ id, kind }: { readonly id: string; readonly kind: string }): string =>
	kind === 'svg' ? `/documents/${id}/sheet` : `/documents/${id}`;
