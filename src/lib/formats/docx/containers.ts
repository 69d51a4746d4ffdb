import type { Edits, XmlNode } from '../package/xml.ts';

/**
 * Changes what a property element (w:tcPr, w:rPr …) says, at its place in the source: children named in `remove` or
 * `set` go, those in `set` come in the schema's order, everything else stays byte for byte. Makes the element where
 * it is missing and takes it out where nothing is left in it.
 */
export function editProperties(
	edits: Edits,
	source: string,
	parent: XmlNode,
	name: string,
	order: readonly string[],
	remove: (child: XmlNode) => boolean,
	set: ReadonlyMap<string, string>
): void {
	const container = parent.child(name);
	if (!container) {
		if (set.size === 0) return;
		const markup = `<${name}>${sortedMarkup(order, set)}</${name}>`;
		if (parent.selfClosing) {
			const open = source.slice(parent.start, parent.end).replace(/\s*\/>$/, '>');
			edits.replace(parent.start, parent.end, `${open}${markup}</${/^<([^\s/>]+)/.exec(open)![1]}>`);
		} else {
			const before = name === 'w:trPr' ? parent.child('w:tblPrEx') : undefined;
			edits.insert(before?.end ?? parent.openEnd, markup);
		}
		return;
	}
	const going = container.children.filter((child) => set.has(child.name) || remove(child));
	if (going.length === 0 && set.size === 0) return;
	if (set.size === 0 && going.length === container.children.length && Object.keys(container.attributes).length === 0) {
		edits.remove(container);
		return;
	}
	if (container.selfClosing) {
		edits.replace(container.start, container.end, `<${name}>${sortedMarkup(order, set)}</${name}>`);
		return;
	}
	const gone = new Set(going);
	const staying = container.children.filter((child) => !gone.has(child));
	const inserts = new Map<number, string[]>();
	for (const [element, markup] of [...set].sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))) {
		const next = staying.find((child) => order.indexOf(child.name) > order.indexOf(element));
		const at = next?.start ?? container.closeStart;
		inserts.set(at, [...(inserts.get(at) ?? []), markup]);
	}
	for (const [at, markup] of inserts) edits.insert(at, markup.join(''));
	for (const child of going) edits.remove(child);
}

const sortedMarkup = (order: readonly string[], set: ReadonlyMap<string, string>): string =>
	[...set]
		.sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))
		.map(([, markup]) => markup)
		.join('');
