const ODF = 'urn:oasis:names:tc:opendocument:xmlns:';

/** The namespaces of ODF 1.2 and 1.3 that tables are made of, and the prefixes by which we know them. */
export const NAMESPACES: ReadonlyMap<string, string> = new Map([
	[`${ODF}office:1.0`, 'office'],
	[`${ODF}style:1.0`, 'style'],
	[`${ODF}text:1.0`, 'text'],
	[`${ODF}table:1.0`, 'table'],
	[`${ODF}drawing:1.0`, 'draw'],
	[`${ODF}xsl-fo-compatible:1.0`, 'fo'],
	[`${ODF}svg-compatible:1.0`, 'svg'],
	[`${ODF}meta:1.0`, 'meta'],
	[`${ODF}manifest:1.0`, 'manifest'],
	['http://www.w3.org/1999/xlink', 'xlink']
]);

/** What our own markup needs declared, where a source does not. */
export const OWN_PREFIXES = ['office', 'style', 'text', 'table', 'fo', 'svg', 'draw', 'xlink'] as const;

export const namespaceOf = (prefix: string): string => [...NAMESPACES].find(([, known]) => known === prefix)![0];

export const MIMETYPE = 'application/vnd.oasis.opendocument.text';
/** Heptarch's own data: a file of the package, or a user-defined field of a flat document. */
export const DATA_FILE = 'Heptarch/document.json';
export const DATA_FIELD = 'heptarch-document';
