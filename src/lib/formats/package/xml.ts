import { SaxesParser } from 'saxes';
import { InputError } from '../../core/errors.ts';
import { Scope, XmlNode } from './node.ts';

export { XmlNode };

/** Elements may stand this deep in each other; real documents stay far below. */
const MAX_DEPTH = 600;
const NO_PROPERTIES: ReadonlySet<string> = new Set();

export interface XmlDocument {
	readonly source: string;
	readonly root: XmlNode;
	/** Canonical prefix → the prefix that this source binds to that namespace at its root. */
	readonly prefixes: ReadonlyMap<string, string>;
	/** Reads a piece of this source by itself; the same piece is read once. Its offsets count from its own start. */
	readonly fragment: (markup: string) => XmlNode;
}

export interface XmlOptions {
	/** Namespace names → canonical prefixes; names in other namespaces become `{namespace}local`. */
	readonly namespaces: ReadonlyMap<string, string>;
	/** A document type without declarations of its own is let pass. Entities never are. */
	readonly allowDoctype?: boolean;
	/** Canonical names of property elements: they are read once per markup. */
	readonly properties?: ReadonlySet<string>;
}

/**
 * Parses XML to a tree with source positions. Document type declarations are refused, so that no entity is ever
 * expanded. Throws InputError naming the part, line and column.
 */
export function parseXml(
	source: string,
	part: string,
	{ namespaces, properties = NO_PROPERTIES, allowDoctype = false }: XmlOptions
): XmlDocument {
	const pieces = new Map<string, XmlNode>();
	const piece = (markup: string, scope: Scope): XmlNode => {
		let node = pieces.get(markup);
		if (!node) {
			node = parse(markup, { part, allowDoctype, scope, properties: NO_PROPERTIES, piece }).root;
			pieces.set(markup, node);
		}
		return node;
	};
	const outside = new Scope(new Map(), namespaces);
	const { root, scope } = parse(source, { part, allowDoctype, scope: outside, properties, piece });
	const prefixes = new Map<string, string>();
	for (const [prefix, namespace] of scope.bindings) {
		const known = namespaces.get(namespace);
		if (known !== undefined && (!prefixes.has(known) || prefix !== '')) prefixes.set(known, prefix);
	}
	return { source, root, prefixes, fragment: (markup) => piece(markup, scope) };
}

const ENTITIES: Record<string, string> = { lt: '<', gt: '>', amp: '&', quot: '"', apos: "'" };
/** The characters that a stretch of a source between tags stands for; comments stand for nothing. */
export const decodedText = (text: string): string =>
	text
		.replace(/<!--[\s\S]*?-->|<\?[\s\S]*?\?>/g, '')
		.replace(/<!\[CDATA\[([\s\S]*?)\]\]>/g, (_, inside: string) => inside.replace(/&/g, '&amp;'))
		.replace(/&(#x[\da-f]+|#\d+|\w+);/gi, (whole, name: string) =>
			name.startsWith('#x')
				? String.fromCodePoint(Number.parseInt(name.slice(2), 16))
				: name.startsWith('#')
					? String.fromCodePoint(Number(name.slice(1)))
					: (ENTITIES[name] ?? whole)
		);

interface Reading {
	readonly part: string;
	readonly allowDoctype: boolean;
	/** The bindings that the source stands in. */
	readonly scope: Scope;
	readonly properties: ReadonlySet<string>;
	/** Reads a property element by itself, once for each markup. */
	readonly piece: (markup: string, scope: Scope) => XmlNode;
}

/** An element that is open; a property element is made when its end is known. */
interface Open {
	readonly node: XmlNode | undefined;
	readonly start: number;
	readonly openEnd: number;
	/** How many elements there were before those inside. */
	readonly before: number;
	readonly outer: Scope;
}

/** One pass over a source. Returns the root and the bindings in it. */
function parse(source: string, reading: Reading): { root: XmlNode; scope: Scope } {
	const parser = new SaxesParser({ xmlns: false, position: true });
	let root: XmlNode | undefined;
	let { scope } = reading;
	let rootScope = scope;
	const open: Open[] = [];
	/** The elements inside the open ones that have ended. */
	const ended: XmlNode[] = [];
	let count = 0;
	/** How deep inside a property element; 0 outside. */
	let within = 0;

	const fail = (message: string): never => {
		throw new InputError(
			'xml',
			`“${reading.part}” is not well-formed: ${message} (line ${parser.line}, column ${parser.column}).`,
			`${reading.part}:${parser.line}`
		);
	};
	parser.on('error', (error) => fail(error.message.replace(/^\d+:\d+: /, '')));
	parser.on('doctype', (doctype) => {
		if (!reading.allowDoctype) fail('a document type declaration is not allowed here');
		if (doctype.includes('[')) fail('it declares entities or a document type of its own, which is not allowed here');
	});
	parser.on('opentag', (tag) => {
		if (open.length + within >= MAX_DEPTH) fail(`elements stand more than ${MAX_DEPTH} deep in each other`);
		if (within > 0) {
			within++;
			return;
		}
		const outer = scope;
		scope = scope.inside(tag.attributes);
		if (!root) rootScope = scope;
		const start = source.lastIndexOf('<', parser.position - 1);
		const name = scope.element(tag.name);
		// Bindings made below the root would be lost to a piece that is read by itself: such property elements are read here.
		if (root && !tag.isSelfClosing && scope === rootScope && reading.properties.has(name)) within = 1;
		const node = within ? undefined : new XmlNode(name, scope.named(tag.attributes), start);
		root ??= node;
		open.push({ node, start, openEnd: parser.position, before: count, outer });
	});
	parser.on('closetag', (tag) => {
		if (within > 1) {
			within--;
			return;
		}
		within = 0;
		const { node: read, start, openEnd, before, outer } = open.pop()!;
		const end = parser.position;
		const node = read ?? propertyOf(reading.piece(source.slice(start, end), rootScope), start);
		node.end = end;
		node.closeStart = tag.isSelfClosing ? end : source.lastIndexOf('<', end - 1);
		node.openEnd = tag.isSelfClosing ? end : openEnd;
		if (count > before) node.children = ended.slice(before, count);
		count = before;
		ended[count++] = node;
		scope = outer;
	});
	const take = (text: string) => {
		if (within === 0) open.at(-1)?.node?.take(text);
	};
	parser.on('text', take);
	parser.on('cdata', take);
	parser.write(source).close();
	return { root: root ?? fail('it is empty'), scope: rootScope };
}

const propertyOf = (piece: XmlNode, start: number): XmlNode => new XmlNode(piece.name, piece.attributes, start, piece);

/** The attributes of a start tag as they are written, with the white space before each: what a value looks like is none. Of HTML, too. */
export function* attributesIn(
	tag: string
): Generator<{ readonly name: string; readonly start: number; readonly end: number }> {
	for (const found of tag.matchAll(/\s+([^\s=/>"']+)(?:\s*=\s*(?:"[^"]*"|'[^']*'|[^\s"'>]+))?/g))
		yield { name: found[1]!, start: found.index, end: found.index + found[0].length };
}

/** A start tag without some of its attributes, by their names as they are written. */
export function withoutAttributes(tag: string, goes: (name: string) => boolean): string {
	let out = '';
	let at = 0;
	for (const { name, start, end } of attributesIn(tag)) {
		if (!goes(name)) continue;
		out += tag.slice(at, start);
		at = end;
	}
	return out + tag.slice(at);
}

/** Every element below `node` with this name, in document order; does not look inside those it finds,
 * nor inside properties, nor inside the stand-ins for programs that do not know newer markup (mc:Fallback). */
export function descendants(node: XmlNode, name: string, found: XmlNode[] = []): XmlNode[] {
	for (const child of node.children)
		if (child.name === name) found.push(child);
		else if (!child.piece && child.children.length > 0 && child.name !== 'mc:Fallback') descendants(child, name, found);
	return found;
}

/** About how long the pieces of an edited text are. */
const PIECE = 65_536;

/** Replacements at places of a source text. Applied together; they may touch but not overlap. */
export class Edits {
	private readonly starts: number[] = [];
	private readonly ends: number[] = [];
	private readonly texts: string[] = [];
	/** Whether they come in the order of their places. */
	private isInOrder = true;

	replace(start: number, end: number, text: string): void {
		const last = this.starts.length - 1;
		if (last >= 0 && (start < this.starts[last]! || (start === this.starts[last] && end < this.ends[last]!)))
			this.isInOrder = false;
		this.starts.push(start);
		this.ends.push(end);
		this.texts.push(text);
	}
	insert(at: number, text: string): void {
		if (text) this.replace(at, at, text);
	}
	remove(node: XmlNode): void {
		this.replace(node.start, node.end, '');
	}
	get count(): number {
		return this.starts.length;
	}

	apply(source: string): string {
		return [...this.pieces(source, 0, source.length)].join('');
	}

	/** The edited text of a part of the source, in pieces, so that it need not stand in memory as a whole. */
	*pieces(source: string, from: number, to: number): Generator<string> {
		const { starts, ends, texts } = this;
		let order: Uint32Array | undefined;
		if (!this.isInOrder) {
			order = new Uint32Array(starts.length);
			for (let i = 0; i < order.length; i++) order[i] = i;
			order.sort((a, b) => starts[a]! - starts[b]! || ends[a]! - ends[b]! || a - b);
		}
		let at = from;
		let piece = '';
		for (let i = 0; i < starts.length; i++) {
			const edit = order ? order[i]! : i;
			const start = starts[edit]!;
			if (start < at) throw new Error(`Edits overlap at ${start}.`);
			if (start > at) piece += source.slice(at, start);
			piece += texts[edit]!;
			at = ends[edit]!;
			if (piece.length >= PIECE) {
				yield piece;
				piece = '';
			}
		}
		yield piece + source.slice(at, to);
	}
}
