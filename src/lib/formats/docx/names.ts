/** Namespaces of WordprocessingML packages, transitional and strict (ECMA-376 Parts 1 and 4), with the prefix we call them by. */
export const NAMESPACES: ReadonlyMap<string, string> = new Map([
	['http://schemas.openxmlformats.org/wordprocessingml/2006/main', 'w'],
	['http://purl.oclc.org/ooxml/wordprocessingml/main', 'w'],
	['http://schemas.openxmlformats.org/drawingml/2006/main', 'a'],
	['http://purl.oclc.org/ooxml/drawingml/main', 'a'],
	['http://schemas.openxmlformats.org/officeDocument/2006/relationships', 'r'],
	['http://purl.oclc.org/ooxml/officeDocument/relationships', 'r'],
	['http://schemas.openxmlformats.org/markup-compatibility/2006', 'mc'],
	['http://schemas.openxmlformats.org/package/2006/relationships', 'rel'],
	['http://schemas.openxmlformats.org/package/2006/content-types', 'ct'],
	['urn:heptarch:document:1', 'hept']
]);

export const HEPTARCH_NAMESPACE = 'urn:heptarch:document:1';
export const CONTENT_TYPES = '[Content_Types].xml';

const STRICT = 'http://purl.oclc.org/ooxml/';
export const W_NAMESPACE = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
export const W_NAMESPACE_STRICT = STRICT + 'wordprocessingml/main';

/** The last step of a relationship type, the same in transitional and strict: `styles`, `officeDocument`. */
export const relationshipKind = (type: string): string => type.slice(type.lastIndexOf('/') + 1);

/** The name of the part that holds the relationships of `part`. */
export function relationshipsOf(part: string): string {
	const slash = part.lastIndexOf('/');
	return `${part.slice(0, slash + 1)}_rels/${part.slice(slash + 1)}.rels`;
}

/** A relationship target as a part name. */
export function resolveTarget(from: string, target: string): string {
	if (target.startsWith('/')) return target.slice(1);
	const steps = from.split('/').slice(0, -1);
	for (const step of target.split('/'))
		if (step === '..') steps.pop();
		else if (step !== '.') steps.push(step);
	return steps.join('/');
}
