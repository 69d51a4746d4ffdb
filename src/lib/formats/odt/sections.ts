import { InputError } from '../../core/errors.ts';
import type { Edits } from '../package/xml.ts';
import { namespaceOf, OWN_PREFIXES } from './names.ts';
import type { OdtPart } from './story.ts';

/** Inserts markup at the end of a section of a document, which is made where it is missing. */
export function addTo(part: OdtPart, section: string, before: string, markup: string, edits: Edits): void {
	if (!markup) return;
	const { root } = part.xml;
	const found = root.child(section);
	if (found && !found.selfClosing) edits.insert(found.closeStart, markup);
	else if (found) edits.replace(found.start, found.end, `<${section}>${markup}</${section}>`);
	else {
		const next = root.children.find(
			({ name }) => name === before || name === 'office:body' || name === 'office:master-styles'
		);
		edits.insert(next?.start ?? root.closeStart, `<${section}>${markup}</${section}>`);
	}
}

/** Our markup uses the usual prefixes; a root that binds others gets them declared. */
export function declarePrefixes(part: OdtPart, edits: Edits): void {
	const { root, prefixes, source } = part.xml;
	const missing = OWN_PREFIXES.filter((prefix) => prefixes.get(prefix) !== prefix);
	if (!missing.length) return;
	const taken = missing.find((prefix) => source.slice(root.start, root.openEnd).includes(`xmlns:${prefix}=`));
	if (taken)
		throw new InputError(
			'wrong-namespace',
			`“${part.name}” uses the prefix “${taken}” for something else than open documents do, so nothing can be added to it.`,
			part.name
		);
	const end = source[root.openEnd - 2] === '/' ? root.openEnd - 2 : root.openEnd - 1;
	edits.insert(end, missing.map((prefix) => ` xmlns:${prefix}="${namespaceOf(prefix)}"`).join(''));
}
