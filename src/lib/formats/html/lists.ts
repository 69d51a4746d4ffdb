import type { ListItem, ListMarker } from '../../core/table/content.ts';
import type { PageStyles } from './cascade.ts';
import { childElements, parentOf, type Element } from './dom.ts';

const TYPES: Readonly<Record<string, ListMarker>> = {
	'1': 'decimal',
	a: 'lower-alpha',
	A: 'upper-alpha',
	i: 'lower-roman',
	I: 'upper-roman'
};
const NAMED: Readonly<Record<string, ListMarker>> = {
	disc: 'disc',
	circle: 'disc',
	square: 'disc',
	decimal: 'decimal',
	'decimal-leading-zero': 'decimal',
	'lower-alpha': 'lower-alpha',
	'lower-latin': 'lower-alpha',
	'upper-alpha': 'upper-alpha',
	'upper-latin': 'upper-alpha',
	'lower-roman': 'lower-roman',
	'upper-roman': 'upper-roman'
};
const isListElement = (node: Element) => node.name === 'ul' || node.name === 'ol' || node.name === 'menu';

/** An item as its page shows it (HTML Standard §15.3.7); undefined where it shows no marker. */
export function listItemOf(item: Element, styles: PageStyles): ListItem | undefined {
	const list = parentOf(item);
	if (!list || !isListElement(list)) return undefined;
	const computed = styles.computed(item);
	const said = computed.get('list-style-type') ?? '';
	if (said === 'none') return undefined;
	const named = NAMED[said];
	const marker =
		named ?? TYPES[item.attribs.type ?? list.attribs.type ?? ''] ?? (list.name === 'ol' ? 'decimal' : 'disc');
	let level = -1;
	for (let up: Element | undefined = list; up && up.name !== 'td' && up.name !== 'th'; up = parentOf(up))
		if (isListElement(up)) level++;
	return { level, marker, number: marker === 'disc' ? 1 : numberOf(item, list) };
}

const numbers = new WeakMap<Element, ReadonlyMap<Element, number>>();
function numberOf(item: Element, list: Element): number {
	let known = numbers.get(list);
	if (!known) {
		const found = new Map<Element, number>();
		const whole = (said: string | undefined) =>
			said !== undefined && /^\d{1,6}$/.test(said) ? Number(said) : undefined;
		let next = whole(list.attribs.start) ?? 1;
		for (const one of childElements(list, 'li')) {
			const number = whole(one.attribs.value) ?? next;
			found.set(one, number);
			next = number + 1;
		}
		numbers.set(list, (known = found));
	}
	return known.get(item) ?? 1;
}
