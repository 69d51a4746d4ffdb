import { SaxesParser } from 'saxes';
import { InputError } from '../../core/errors.ts';

/** Elements may stand this deep in each other; real documents stay far below. */
const MAX_DEPTH = 600;

const NO_CHILDREN: readonly XmlNode[] = Object.freeze([]);

/** An element with its place in the source text, so that it can be changed without touching anything else. */
export class XmlNode {
	private own: readonly XmlNode[] | undefined = NO_CHILDREN;
	/** Character data directly inside, entities resolved. */
	text = '';
	/** Source offsets (UTF-16): of `<`, after the start tag's `>`, of the end tag's `<`, after its `>`. */
	openEnd = 0;
	closeStart = 0;
	end = 0;
	constructor(
		/** Canonical name: the prefix that the caller's names give to the namespace, and the local name. */
		readonly name: string,
		readonly attributes: Readonly<Record<string, string>>,
		readonly start: number,
		/** For a property element: reads what stands inside when somebody asks. */
		private readonly inside?: (node: XmlNode) => XmlNode
	) {
		if (inside) this.own = undefined;
	}

	/** The elements inside. Those of a property element count their offsets from its own start. */
	get children(): readonly XmlNode[] {
		return (this.own ??= this.inside!(this).children);
	}
	append(child: XmlNode): void {
		if (this.own === NO_CHILDREN) this.own = [child];
		else (this.own as XmlNode[]).push(child);
	}
	/** No more children come: gives back the room that a growing list keeps. */
	close(): void {
		if (this.own && this.own.length > 1) this.own = this.own.slice();
	}
	/** Holds properties, read when asked for. */
	get isProperty(): boolean {
		return this.inside !== undefined;
	}
	/** `<x/>`, without an end tag. */
	get selfClosing(): boolean {
		return this.closeStart === this.end;
	}
	child(name: string): XmlNode | undefined {
		for (const node of this.children) if (node.name === name) return node;
		return undefined;
	}
	/** The first element at the end of a path of child names. */
	at(...path: string[]): XmlNode | undefined {
		let node: XmlNode | undefined = this;
		for (const name of path) node = node?.child(name);
		return node;
	}
	attribute(name: string): string | undefined {
		return this.attributes[name];
	}
}

export interface XmlDocument {
	readonly source: string;
	readonly root: XmlNode;
	/** Canonical prefix → the prefix that this source binds to that namespace at its root. */
	readonly prefixes: ReadonlyMap<string, string>;
	/** Reads a piece of this source by itself; the same piece is read once. Its offsets count from its own start. */
	readonly fragment: (markup: string) => XmlNode;
}

interface Scope {
	readonly bindings: ReadonlyMap<string, string>;
	readonly elements: Map<string, string>;
	readonly attributes: Map<string, string>;
}
const scopeOf = (bindings: ReadonlyMap<string, string>): Scope => ({
	bindings,
	elements: new Map(),
	attributes: new Map()
});
const NO_ATTRIBUTES: Readonly<Record<string, string>> = Object.freeze({});

export interface XmlOptions {
	/** Namespace names → canonical prefixes; names in other namespaces become `{namespace}local`. */
	readonly namespaces: ReadonlyMap<string, string>;
	/** A document type without declarations of its own is let pass. Entities never are. */
	readonly allowDoctype?: boolean;
	/** Canonical names of property elements: what is inside them is read when it is asked for, and once per markup. */
	readonly properties?: ReadonlySet<string>;
}

/**
 * Parses XML to a tree with source positions. Document type declarations are refused, so that no entity is ever
 * expanded. Throws InputError naming the part, line and column.
 */
export function parseXml(source: string, part: string, options: XmlOptions): XmlDocument {
	const fragments = new Map<string, XmlNode>();
	const inside = (node: XmlNode) => fragment(source.slice(node.start, node.end));
	const { root, scope } = parse(source, part, options, undefined, inside);
	function fragment(markup: string): XmlNode {
		let node = fragments.get(markup);
		if (!node) fragments.set(markup, (node = parse(markup, part, { namespaces: options.namespaces }, scope).root));
		return node;
	}
	const prefixes = new Map<string, string>();
	for (const [prefix, namespace] of scope.bindings) {
		const known = options.namespaces.get(namespace);
		if (known !== undefined && (!prefixes.has(known) || prefix !== '')) prefixes.set(known, prefix);
	}
	return { source, root, prefixes, fragment };
}

/** One pass over a source; `outer` are the bindings it stands in. Returns the root and the bindings at it. */
function parse(
	source: string,
	part: string,
	{ namespaces, properties, allowDoctype }: XmlOptions,
	outer?: Scope,
	inside?: (node: XmlNode) => XmlNode
): { root: XmlNode; scope: Scope } {
	const parser = new SaxesParser({ xmlns: false, position: true });
	let root: XmlNode | null = null;
	let rootScope = outer ?? scopeOf(new Map());
	let at: XmlNode | null = null;
	const open: (XmlNode | null)[] = [];
	let depth = 0;
	/** How deep inside a property element; 0 outside. */
	let within = 0;
	let scope = rootScope;
	const scopes: Scope[] = [];

	const canonical = (name: string, element: boolean): string => {
		const names = element ? scope.elements : scope.attributes;
		let known = names.get(name);
		if (known === undefined) {
			const colon = name.indexOf(':');
			const prefix = colon < 0 ? '' : name.slice(0, colon);
			const local = name.slice(colon + 1);
			const namespace = !element && colon < 0 ? '' : (scope.bindings.get(prefix) ?? '');
			const own = namespaces.get(namespace);
			known = namespace === '' ? name : own === undefined ? `{${namespace}}${local}` : `${own}:${local}`;
			names.set(name, known);
		}
		return known;
	};
	const fail = (message: string): never => {
		throw new InputError(
			'xml',
			`“${part}” is not well-formed: ${message} (line ${parser.line}, column ${parser.column}).`,
			`${part}:${parser.line}`
		);
	};
	parser.on('error', (error) => fail(error.message.replace(/^\d+:\d+: /, '')));
	parser.on('doctype', (doctype) => {
		if (!allowDoctype) fail('a document type declaration is not allowed here');
		if (doctype.includes('[')) fail('it declares entities or a document type of its own, which is not allowed here');
	});
	parser.on('opentag', (tag) => {
		if (++depth > MAX_DEPTH) fail(`elements stand more than ${MAX_DEPTH} deep in each other`);
		if (within > 0) {
			within++;
			return;
		}
		const raw = tag.attributes as Record<string, string>;
		let own: Map<string, string> | undefined;
		for (const name in raw) {
			if (name === 'xmlns' || name.startsWith('xmlns:')) {
				own ??= new Map(scope.bindings);
				own.set(name.slice(6), raw[name]!);
			}
		}
		scopes.push(scope);
		if (own) scope = scopeOf(own);
		// Copied, because the parser's own objects are slow and large dictionaries.
		let attributes = NO_ATTRIBUTES;
		for (const name in raw) {
			if (attributes === NO_ATTRIBUTES) attributes = {};
			(attributes as Record<string, string>)[canonical(name, false)] = raw[name]!;
		}
		const start = source.lastIndexOf('<', parser.position - 1);
		const name = canonical(tag.name, true);
		// Bindings made below the root would be lost to a piece that is read by itself: such property elements are read at once.
		const isProperty = !tag.isSelfClosing && properties?.has(name) === true && scope === rootScope;
		const node = new XmlNode(name, attributes, start, isProperty ? inside : undefined);
		node.openEnd = parser.position;
		if (at) at.append(node);
		else {
			root = node;
			rootScope = scope;
		}
		open.push(at);
		at = node;
		if (isProperty) within = 1;
	});
	parser.on('closetag', (tag) => {
		depth--;
		if (within > 1) {
			within--;
			return;
		}
		within = 0;
		const node = at!;
		node.end = parser.position;
		node.closeStart = tag.isSelfClosing ? node.end : source.lastIndexOf('<', parser.position - 1);
		if (tag.isSelfClosing) node.openEnd = node.end;
		node.close();
		at = open.pop()!;
		scope = scopes.pop()!;
	});
	const take = (text: string) => {
		if (at && within === 0) at.text += text;
	};
	parser.on('text', take);
	parser.on('cdata', take);
	parser.write(source).close();
	if (!root) fail('it is empty');
	return { root: root!, scope: rootScope };
}

/** Character data and attribute values for XML 1.0; characters that XML cannot hold are left out. */
export function escapeXml(text: string): string {
	return (
		text
			// eslint-disable-next-line no-control-regex
			.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
			.replace(/&/g, '&amp;')
			.replace(/</g, '&lt;')
			.replace(/>/g, '&gt;')
			.replace(/"/g, '&quot;')
	);
}

/** Every element below `node` with this name, in document order; does not look inside those it finds,
 * nor inside properties, nor inside the stand-ins for programs that do not know newer markup (mc:Fallback). */
export function* descendants(node: XmlNode, name: string): Generator<XmlNode> {
	for (const child of node.children)
		if (child.name === name) yield child;
		else if (!child.isProperty && child.name !== 'mc:Fallback') yield* descendants(child, name);
}

/** Replacements at places of a source text. Applied together; they may touch but not overlap. */
export class Edits {
	private readonly edits: { start: number; end: number; text: string }[] = [];

	replace(start: number, end: number, text: string): void {
		this.edits.push({ start, end, text });
	}
	insert(at: number, text: string): void {
		if (text) this.replace(at, at, text);
	}
	remove(node: XmlNode): void {
		this.replace(node.start, node.end, '');
	}
	get count(): number {
		return this.edits.length;
	}

	apply(source: string): string {
		return [...this.pieces(source)].join('');
	}

	/** The edited text piece by piece, so that it need not stand in memory as a whole. */
	*pieces(source: string): Generator<string> {
		this.edits.sort((a, b) => a.start - b.start || a.end - b.end);
		let at = 0;
		for (const { start, end, text } of this.edits) {
			if (start < at) throw new Error(`Edits overlap at ${start}.`);
			if (start > at) yield source.slice(at, start);
			if (text) yield text;
			at = end;
		}
		yield source.slice(at);
	}
}
