import type { Edits, XmlDocument, XmlNode } from '../package/xml.ts';

const inOrder = (order: readonly string[], set: ReadonlyMap<string, string>): [string, string][] =>
	[...set].sort(([a], [b]) => order.indexOf(a) - order.indexOf(b));

/** A property element (w:tcPr, w:rPr …) with these children, or '' where there are none. */
export function writeProperties(name: string, order: readonly string[], set: ReadonlyMap<string, string>): string {
	return set.size
		? `<${name}>${inOrder(order, set)
				.map(([, markup]) => markup)
				.join('')}</${name}>`
		: '';
}

/**
 * A property element's markup with children changed: those named in `set` or that `remove` picks go, those in `set`
 * come in the schema's order, everything else stays byte for byte. '' where nothing is left in it.
 */
export function rewriteProperties(
	markup: string,
	xml: Pick<XmlDocument, 'fragment'>,
	name: string,
	order: readonly string[],
	remove: (child: XmlNode) => boolean,
	set: ReadonlyMap<string, string>
): string {
	if (markup === '') return writeProperties(name, order, set);
	const container = xml.fragment(markup);
	const gone = new Set(container.children.filter((child) => set.has(child.name) || remove(child)));
	if (gone.size === 0 && set.size === 0) return markup;
	const isBare = Object.keys(container.attributes).length === 0;
	if (set.size === 0 && gone.size === container.children.length && isBare) return '';
	if (container.selfClosing) return writeProperties(name, order, set);
	const staying = container.children.filter((child) => !gone.has(child));
	const cuts: { start: number; end: number; text: string }[] = [...gone].map(({ start, end }) => ({
		start,
		end,
		text: ''
	}));
	for (const [element, text] of inOrder(order, set)) {
		const next = staying.find((child) => order.indexOf(child.name) > order.indexOf(element));
		const at = next?.start ?? container.closeStart;
		cuts.push({ start: at, end: at, text });
	}
	cuts.sort((a, b) => a.start - b.start || a.end - b.end);
	let out = '';
	let at = 0;
	for (const { start, end, text } of cuts) {
		out += markup.slice(at, start) + text;
		at = end;
	}
	return out + markup.slice(at);
}

/** Puts a changed property element back in its place, or a new one where it belongs in `parent`. */
export function placeProperties(
	edits: Edits,
	source: string,
	parent: XmlNode,
	old: XmlNode | undefined,
	markup: string
): void {
	if (old) {
		if (old.end - old.start !== markup.length || !source.startsWith(markup, old.start))
			edits.replace(old.start, old.end, markup);
	} else if (markup === '') return;
	else if (parent.selfClosing) {
		const open = source.slice(parent.start, parent.end).replace(/\s*\/>$/, '>');
		edits.replace(parent.start, parent.end, `${open}${markup}</${/^<([^\s/>]+)/.exec(open)![1]}>`);
	} else edits.insert(parent.child('w:tblPrEx')?.end ?? parent.openEnd, markup);
}
