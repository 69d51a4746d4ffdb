import type { House } from '../../core/house.ts';
import { escapeXml } from '../../core/escape.ts';
import { computeLook } from '../../core/cascade/look.ts';
import { inkHex, resolveParts } from '../../core/cascade/resolve.ts';
import type { FlatStyle } from '../../core/style/inherit.ts';
import { type Edits } from '../package/xml.ts';
import type { Prepared } from '../job.ts';
import type { OdtPart } from './story.ts';
import { attributesOf } from './properties/index.ts';
import { cellProperties } from './say.ts';
import { styleName } from './styling.ts';

/** The elements of a table template, in the order of the schema (ODF 1.3 Part 3 §16.13), and the parts that they stand for. */
const PLACES: readonly (readonly [element: string, parts: readonly string[]])[] = [
	['first-row', ['ground', 'header', 'header:1']],
	['last-row', ['ground', 'total']],
	['first-column', ['ground', 'firstColumn']],
	['last-column', ['ground', 'lastColumn']],
	['body', ['ground']],
	['even-rows', ['ground', 'rowBand:2']],
	['odd-rows', ['ground', 'rowBand:1']],
	['even-columns', ['ground', 'columnBand:2']],
	['odd-columns', ['ground', 'columnBand:1']]
];

const attributes = (all: Readonly<Record<string, string>>): string =>
	Object.entries(all)
		.map(([name, value]) => ` ${name}="${escapeXml(value)}"`)
		.join('');

function markupOf(style: FlatStyle, prepared: Prepared, house: House): { styles: string; template: string } {
	const base = styleName(style.name);
	const styles: string[] = [];
	const places: string[] = [];
	for (const [element, parts] of PLACES) {
		const known = parts.filter((part) => style.parts.has(part));
		if (element !== 'body' && !known.some((part) => part !== 'ground')) continue;
		const { leaves } = resolveParts(style, house, prepared.job.table, known);
		const look = computeLook(leaves, (name) => inkHex(name, style, house));
		const name = `${base}.${element}`;
		styles.push(
			`<style:style${attributes({ 'style:name': name, 'style:display-name': `${style.name}: ${element}`, 'style:family': 'table-cell' })}>` +
				`<style:table-cell-properties${attributes(cellProperties(look, undefined))}/>` +
				`<style:paragraph-properties${attributes(attributesOf('paragraph', look))}/>` +
				`<style:text-properties${attributes(attributesOf('text', look))}/></style:style>`
		);
		places.push(`<table:${element} table:style-name="${escapeXml(name)}"/>`);
	}
	const template = `<table:table-template${attributes({
		'table:name': base,
		'table:first-row-start-column': 'row',
		'table:first-row-end-column': 'row',
		'table:last-row-start-column': 'row',
		'table:last-row-end-column': 'row'
	})}>${places.join('')}</table:table-template>`;
	return { styles: styles.join(''), template };
}

/** Puts a table template of each style, with its named cell styles, into the styles of a document; what was there of it goes. */
export function templateMarkup(prepared: readonly Prepared[], house: House): (part: OdtPart, edits: Edits) => void {
	const byStyle = new Map(prepared.map((one) => [one.resolved.style.name, one]));
	return (part, edits) => {
		const section = part.xml.root.child('office:styles');
		if (!section) return;
		const bases = [...byStyle.keys()].map(styleName);
		for (const node of section.children) {
			const name = node.attribute('style:name') ?? node.attribute('table:name') ?? '';
			const isCell = node.name === 'style:style' && node.attribute('style:family') === 'table-cell';
			if (
				(node.name === 'table:table-template' && bases.includes(name)) ||
				(isCell && bases.some((base) => PLACES.some(([element]) => name === `${base}.${element}`)))
			)
				edits.remove(node);
		}
		const made = [...byStyle.values()].map((one) => markupOf(one.resolved.style, one, house));
		const markup = made.map(({ styles }) => styles).join('') + made.map(({ template }) => template).join('');
		if (section.selfClosing) edits.replace(section.start, section.end, `<office:styles>${markup}</office:styles>`);
		else edits.insert(section.closeStart, markup);
	};
}
