import { LIST_MARKERS, type ListItem, type ListMarker } from '../../core/table/content.ts';
import type { XmlNode } from '../package/xml.ts';
import type { OdfStyles } from './styles.ts';

/** Number formats by their markers (ODF 1.3 Part 3 §19.500); bullets have none. */
export const NUMBER_FORMATS: Readonly<Record<ListMarker, string | undefined>> = {
	disc: undefined,
	decimal: '1',
	'lower-alpha': 'a',
	'upper-alpha': 'A',
	'lower-roman': 'i',
	'upper-roman': 'I'
};

interface Level {
	/** Undefined for a level that shows nothing. */
	readonly marker: ListMarker | undefined;
	readonly start: number;
}
const whole = (said: string | undefined): number | undefined => {
	const number = Number(said);
	return said !== undefined && Number.isInteger(number) && number >= 0 && number < 1e6 ? number : undefined;
};

/** A level of a list style (§16.31): bullets where there is no such style. */
function levelOf(style: XmlNode | undefined, level: number): Level {
	const node = style?.children.find((one) => Number(one.attribute('text:level')) === level + 1);
	if (node?.name !== 'text:list-level-style-number') return { marker: 'disc', start: 1 };
	return {
		marker: LIST_MARKERS.find((one) => NUMBER_FORMATS[one] === (node.attribute('style:num-format') ?? '')),
		start: whole(node.attribute('text:start-value')) ?? 1
	};
}

/** The paragraphs of an element that are items of lists (§5.3). The first paragraph of an item has its marker. */
export function listItems(root: XmlNode, styles: OdfStyles): ReadonlyMap<XmlNode, ListItem> {
	const items = new Map<XmlNode, ListItem>();
	/** The last number of each style and level. */
	const last = new Map<string, number>();
	const visit = (node: XmlNode, depth: number, around: string | undefined) => {
		for (const child of node.children)
			if (child.name === 'text:list') list(child, depth, child.attribute('text:style-name') ?? around);
			// A table in a list begins anew.
			else visit(child, child.name === 'table:table' ? 0 : depth, child.name === 'table:table' ? undefined : around);
	};
	const list = (node: XmlNode, depth: number, named: string | undefined) => {
		const said = named ?? styleOfFirst(node, styles);
		const { marker, start } = levelOf(styles.list(said), depth);
		const key = `${depth} ${said}`;
		const goesOn = node.attribute('text:continue-numbering') === 'true' || node.attribute('text:continue-list');
		let number = goesOn ? (last.get(key) ?? start - 1) : start - 1;
		for (const item of node.children) {
			const first = item.name === 'text:list-item' ? item.children.find(({ name }) => PARAGRAPHS.has(name)) : undefined;
			if (first) {
				number = whole(item.attribute('text:start-value')) ?? number + 1;
				if (marker) items.set(first, { level: depth, marker, number: marker === 'disc' ? 1 : number });
			}
			visit(item, depth + 1, said);
		}
		last.set(key, number);
	};
	visit(root, 0, undefined);
	return items;
}
const PARAGRAPHS: ReadonlySet<string> = new Set(['text:p', 'text:h']);

/** A list without a style has that of its first paragraph (§19.880). */
function styleOfFirst(list: XmlNode, styles: OdfStyles): string | undefined {
	const first = list.children.flatMap(({ children }) => children).find(({ name }) => PARAGRAPHS.has(name));
	return styles.get('paragraph', first?.attribute('text:style-name'))?.node.attribute('style:list-style-name');
}
