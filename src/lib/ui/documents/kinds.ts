/** What kinds of documents are called. */
export const KIND_WORDS: Readonly<Record<string, string>> = {
	docx: 'word-processed',
	odt: 'open text',
	html: 'web page',
	csv: 'rows'
};
