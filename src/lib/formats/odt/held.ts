import { hold, holdRow, type Held, type RowFacts } from '../held.ts';
import type { Things } from '../../core/recognise/facts.ts';
import type { XmlNode } from '../package/xml.ts';
import { toEmu } from './properties/property.ts';
import { TEXT_FILL, type OdfStyles } from './styles.ts';

/** Text that a program works out (ODF 1.3 Part 3 §7). */
const FIELDS =
	/^text:(date|time|page-number|page-count|sequence|sequence-ref|bookmark-ref|reference-ref|variable-\w+|user-field-\w+|expression|author-\w+|chapter|file-name|database-display)$/;
const SHAPES = /^draw:(rect|circle|ellipse|line|polyline|polygon|path|custom-shape|connector|g)$/;

/** What a row says of itself (ODF 1.3 Part 3 §17.17, §19.754). */
export function rowFacts(row: XmlNode, styles: OdfStyles): RowFacts {
	const own = styles.properties('table-row', row.attribute('table:style-name'));
	const exact = toEmu(own.get('style:row-height'));
	const height = exact ?? toEmu(own.get('style:min-row-height'));
	return {
		...(height && { height, isExact: exact !== undefined }),
		...(own.get('fo:keep-together') === 'always' && { staysWhole: true }),
		...(/collapse|filter/.test(row.attribute('table:visibility') ?? '') && { isHidden: true })
	};
}

/** How many stretches of a paragraph have a background that the others have not. */
function marksIn(paragraph: XmlNode, styles: OdfStyles): number {
	const spans = paragraph.children.filter((child) => child.name === 'text:span');
	const marked = spans.filter((span) => {
		const behind = styles.properties('text', span.attribute('text:style-name')).get(TEXT_FILL);
		return behind !== undefined && behind !== 'transparent';
	});
	return marked.length < spans.length || paragraph.text.trim() ? marked.length : 0;
}

/** What a cell holds beside text, for telling what its table is for. */
export function thingsIn(cell: XmlNode | undefined): Things {
	let [pictures, fields, inner] = [0, 0, 0];
	const visit = (node: XmlNode): void => {
		for (const child of node.children) {
			const { name } = child;
			if (name === 'table:table') inner++;
			else if (name === 'draw:control' || name === 'text:text-input' || name === 'text:placeholder') fields++;
			else if (name === 'draw:frame' && child.children.some((one) => one.name === 'draw:image')) pictures++;
			else visit(child);
		}
	};
	if (cell) visit(cell);
	return { pictures, fields, inner };
}

/** Counts what an element of a document holds beside text and tables. */
export function countHeld(node: XmlNode, styles: OdfStyles, held: Held): void {
	for (const child of node.children) {
		const { name } = child;
		if (name === 'draw:frame') {
			const inside = child.children.map((one) => one.name);
			if (inside.includes('draw:text-box')) hold(held, 'box');
			else if (inside.some((one) => /^draw:(object|object-ole|plugin|applet)$/.test(one))) hold(held, 'object');
			else hold(held, 'picture');
			continue;
		}
		if (SHAPES.test(name)) {
			hold(held, 'drawing');
			continue;
		}
		if (name === 'text:p') hold(held, 'mark', marksIn(child, styles));
		if (name === 'text:a') hold(held, 'link');
		else if (name === 'text:note') hold(held, 'note');
		else if (name === 'office:annotation') hold(held, 'comment');
		else if (name === 'text:list-item') hold(held, 'list');
		else if (name === 'text:changed-region') hold(held, 'change');
		else if (name.startsWith('form:') && name !== 'form:form') hold(held, 'control');
		else if (FIELDS.test(name)) hold(held, 'field');
		else if (name === 'table:table') {
			const table = styles.properties('table', child.attribute('table:style-name'));
			if (table.get('style:rel-width')) hold(held, 'share');
			if (toEmu(table.get('fo:margin-left'))) hold(held, 'indent');
		} else if (name === 'table:table-row') {
			holdRow(held, rowFacts(child, styles));
		}
		if (name !== 'text:note' && name !== 'office:annotation') countHeld(child, styles, held);
	}
}
