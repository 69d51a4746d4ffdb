import { escapeXml } from '../../core/escape.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import type { Style } from '../../core/style/types.ts';
import { carriedEntry, checkedStyle, orNothing, type Carried, type CarriedEntry } from '../carried.ts';
import { type XmlNode } from '../package/xml.ts';
import { HEPTARCH_NAMESPACE } from './names.ts';

/** The carried data as XML: a custom XML part (ECMA-376 Part 1 §15.2.5). */
export function writeCarried(carried: Carried): string {
	const styles = carried.styles.map((style) => `<style>${escapeXml(JSON.stringify(canonicalStyle(style)))}</style>`);
	const entry = (name: string, { index, key }: CarriedEntry, what: unknown) =>
		what ? `<${name} index="${index}" key="${key}">${escapeXml(JSON.stringify(what))}</${name}>` : '';
	const tables = carried.tables.map((one) => entry('table', one, one.wears) + entry('figures', one, one.figures));
	return `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<document xmlns="${HEPTARCH_NAMESPACE}">${[...styles, ...tables].join('')}</document>`;
}

export function readCarried(root: XmlNode): Carried {
	const styles: Style[] = [];
	const tables: CarriedEntry[] = [];
	for (const node of root.children) {
		const style = node.name === 'hept:style' && orNothing(() => checkedStyle(node.text));
		if (style) styles.push(style);
		const isTable = node.name === 'hept:table';
		if (!isTable && node.name !== 'hept:figures') continue;
		const [wears, figures] = isTable ? [node.text, undefined] : [undefined, node.text];
		const entry = carriedEntry(Number(node.attribute('index')), node.attribute('key') ?? '', wears, figures);
		if (entry) tables.push(entry);
	}
	return { styles, tables };
}
