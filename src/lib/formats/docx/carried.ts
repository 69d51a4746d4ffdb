import { escapeXml } from '../../core/escape.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import type { Style } from '../../core/style/types.ts';
import { checkedStyle, checkedWears, orNothing, type Carried } from '../carried.ts';
import { type XmlNode } from '../package/xml.ts';
import { HEPTARCH_NAMESPACE } from './names.ts';

/** The carried data as XML: a custom XML part (ECMA-376 Part 1 §15.2.5). */
export function writeCarried(carried: Carried): string {
	const styles = carried.styles.map((style) => `<style>${escapeXml(JSON.stringify(canonicalStyle(style)))}</style>`);
	const tables = carried.tables.map(
		({ index, key, wears }) => `<table index="${index}" key="${key}">${escapeXml(JSON.stringify(wears))}</table>`
	);
	return `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<document xmlns="${HEPTARCH_NAMESPACE}">${[...styles, ...tables].join('')}</document>`;
}

export function readCarried(root: XmlNode): Carried {
	const styles: Style[] = [];
	const tables: Carried['tables'][number][] = [];
	for (const node of root.children) {
		const style = node.name === 'hept:style' && orNothing(() => checkedStyle(node.text));
		if (style) styles.push(style);
		const wears = node.name === 'hept:table' && orNothing(() => checkedWears(node.text));
		if (wears) tables.push({ index: Number(node.attribute('index')), key: node.attribute('key') ?? '', wears });
	}
	return { styles, tables };
}
