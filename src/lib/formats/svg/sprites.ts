import { isSomewhere, type Extent } from '../../core/layout/matrix.ts';
import type { XmlNode } from '../package/xml.ts';
import { Extents } from './extents.ts';
import type { SvgDocument } from './read.ts';

/** With more objects than this, those that are nothing but their symbol are painted from pictures of the symbols. */
export const MANY_OBJECTS = 4_000;

/** Objects that are painted from pictures, for the page. */
export interface Sprites {
	/** The picture of each symbol as an SVG document, and what it shows in the symbol's units. */
	readonly pictures: readonly { readonly markup: string; readonly extent: Extent }[];
	/** Eight numbers an object: its picture, its layer (−1 for none), and the map from the symbol's units to millimetres. */
	readonly placed: readonly number[];
}

const exact = (value: number) => Number(value.toPrecision(7));
/** Strokes reach a little beyond the shapes. */
const ROOM = 0.06;

/** The objects of a large drawing as pictures in their places, with the elements that they stand for; undefined for others. */
export function spritesOf(document: SvgDocument): { sprites: Sprites; nodes: ReadonlySet<XmlNode> } | undefined {
	const { objects } = document.found;
	if (objects.length <= MANY_OBJECTS) return undefined;
	const pictures: { markup: string; extent: Extent }[] = [];
	const known = new Map<XmlNode, number>();
	const nodes = new Set<XmlNode>();
	const placed: number[] = [];
	const markup = new Pictures(document);
	for (const { painted, node, inLayer } of objects) {
		if (!painted) continue;
		let picture = known.get(painted.target);
		if (picture === undefined) {
			const made = markup.of(painted.target);
			picture = made ? pictures.push(made) - 1 : -1;
			known.set(painted.target, picture);
		}
		if (picture < 0) continue;
		nodes.add(node);
		placed.push(picture, inLayer, ...painted.matrix.map(exact));
	}
	return { sprites: { pictures, placed }, nodes };
}

/** Makes an SVG document of a symbol alone, with what it refers to. */
class Pictures {
	private readonly byId = new Map<string, XmlNode>();
	private readonly sheets: string[] = [];
	private readonly extents: Extents;
	constructor(private readonly document: SvgDocument) {
		const visit = (node: XmlNode) => {
			const id = node.attribute('id');
			if (id !== undefined && !this.byId.has(id)) this.byId.set(id, node);
			if (node.name === 'svg:style') this.sheets.push(this.slice(node));
			for (const child of node.children) visit(child);
		};
		visit(document.xml.root);
		this.extents = new Extents(this.byId);
	}

	private slice({ start, end }: { start: number; end: number }): string {
		return this.document.source.text.slice(start, end);
	}

	of(target: XmlNode): { markup: string; extent: Extent } | undefined {
		const inside = this.extents.used(target);
		if (!isSomewhere(inside)) return undefined;
		const room = Math.max(inside.x2 - inside.x1, inside.y2 - inside.y1) * ROOM;
		const extent = { x1: inside.x1 - room, y1: inside.y1 - room, x2: inside.x2 + room, y2: inside.y2 + room };
		const isSymbol = target.name === 'svg:symbol';
		const content = isSymbol ? this.slice({ start: target.openEnd, end: target.closeStart }) : this.slice(target);
		const needed = new Set<XmlNode>();
		this.collect(content, needed);
		needed.delete(target);
		const { root } = this.document.xml;
		const { text } = this.document.source;
		// Its namespaces are those of the drawing's root.
		const namespaces =
			text
				.slice(root.start, root.openEnd)
				.match(/\sxmlns(:[\w.-]+)?\s*=\s*("[^"]*"|'[^']*')/g)
				?.join('') ?? '';
		const p = this.document.xml.prefixes.get('svg') ? `${this.document.xml.prefixes.get('svg')}:` : '';
		const box = [extent.x1, extent.y1, extent.x2 - extent.x1, extent.y2 - extent.y1].join(' ');
		const markup = `<${p}svg${namespaces} viewBox="${box}" width="256" height="256" preserveAspectRatio="none">${this.sheets.join('')}<${p}defs>${[...needed].map((node) => this.slice(node)).join('')}</${p}defs>${content}</${p}svg>`;
		return { markup, extent };
	}

	/** What a piece of markup refers to, and what that refers to. */
	private collect(markup: string, needed: Set<XmlNode>): void {
		for (const [, id] of markup.matchAll(/(?:href\s*=\s*["']#|url\(\s*["']?#)([^"')\s]+)/g)) {
			const node = this.byId.get(id!);
			if (!node || needed.has(node)) continue;
			needed.add(node);
			this.collect(this.slice(node), needed);
		}
	}
}
