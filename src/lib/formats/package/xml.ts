import { SaxesParser } from 'saxes';
import { InputError } from '../../core/errors.ts';

/** Elements may stand this deep in each other; real documents stay far below. */
const MAX_DEPTH = 600;

/** An element with its place in the source text, so that it can be changed without touching anything else. */
export class XmlNode {
	children: XmlNode[] = [];
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
		readonly parent: XmlNode | null
	) {}

	/** `<x/>`, without an end tag. */
	get selfClosing(): boolean {
		return this.closeStart === this.end;
	}
	child(name: string): XmlNode | undefined {
		return this.children.find((node) => node.name === name);
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
}

type Scope = { readonly bindings: ReadonlyMap<string, string>; readonly names: Map<string, string> };
const NO_ATTRIBUTES: Readonly<Record<string, string>> = Object.freeze({});
const EMPTY_SCOPE: Scope = { bindings: new Map(), names: new Map() };

/**
 * Parses XML to a tree with source positions. `namespaces` maps namespace names to canonical prefixes; names in other
 * namespaces become `{namespace}local`. Document type declarations are refused, so that no entity is ever expanded.
 * Throws InputError naming the part, line and column.
 */
export function parseXml(source: string, part: string, namespaces: ReadonlyMap<string, string>): XmlDocument {
	const parser = new SaxesParser({ xmlns: false, position: true });
	let root: XmlNode | null = null;
	let at: XmlNode | null = null;
	let depth = 0;
	let scope = EMPTY_SCOPE;
	const scopes: Scope[] = [];
	let prefixes = new Map<string, string>();

	const canonical = (name: string, element: boolean): string => {
		const key = element ? name : '@' + name;
		let known = scope.names.get(key);
		if (known === undefined) {
			const colon = name.indexOf(':');
			const prefix = colon < 0 ? '' : name.slice(0, colon);
			const local = name.slice(colon + 1);
			const namespace = !element && colon < 0 ? '' : (scope.bindings.get(prefix) ?? '');
			const own = namespaces.get(namespace);
			known = namespace === '' ? name : own === undefined ? `{${namespace}}${local}` : `${own}:${local}`;
			scope.names.set(key, known);
		}
		return known;
	};
	const fail = (message: string): never => {
		throw new InputError('xml', `“${part}” is not well-formed: ${message} (line ${parser.line}, column ${parser.column}).`, `${part}:${parser.line}`);
	};
	parser.on('error', (error) => fail(error.message.replace(/^\d+:\d+: /, '')));
	parser.on('doctype', () => fail('a document type declaration is not allowed here'));
	parser.on('opentag', (tag) => {
		if (++depth > MAX_DEPTH) fail(`elements stand more than ${MAX_DEPTH} deep in each other`);
		const raw = tag.attributes as Record<string, string>;
		let own: Map<string, string> | undefined;
		let any = false;
		for (const name in raw) {
			any = true;
			if (name === 'xmlns' || name.startsWith('xmlns:')) {
				own ??= new Map(scope.bindings);
				own.set(name.slice(6), raw[name]!);
			}
		}
		scopes.push(scope);
		if (own) scope = { bindings: own, names: new Map() };
		let attributes = NO_ATTRIBUTES;
		if (any) {
			const named: Record<string, string> = {};
			for (const name in raw) named[canonical(name, false)] = raw[name]!;
			attributes = named;
		}
		const start = source.lastIndexOf('<', parser.position - 1);
		const node = new XmlNode(canonical(tag.name, true), attributes, start, at);
		node.openEnd = parser.position;
		if (at) at.children.push(node);
		else {
			root = node;
			for (const [prefix, namespace] of scope.bindings) {
				const known = namespaces.get(namespace);
				if (known !== undefined && (!prefixes.has(known) || prefix !== '')) prefixes.set(known, prefix);
			}
		}
		at = node;
	});
	parser.on('closetag', (tag) => {
		const node = at!;
		node.end = parser.position;
		node.closeStart = tag.isSelfClosing ? node.end : source.lastIndexOf('<', parser.position - 1);
		if (tag.isSelfClosing) node.openEnd = node.end;
		at = node.parent;
		scope = scopes.pop()!;
		depth--;
	});
	parser.on('text', (text) => {
		if (at) at.text += text;
	});
	parser.on('cdata', (text) => {
		if (at) at.text += text;
	});
	parser.write(source).close();
	if (!root) fail('it is empty');
	return { source, root: root!, prefixes };
}

/** Character data and attribute values for XML 1.0; characters that XML cannot hold are left out. */
export function escapeXml(text: string): string {
	return text
		// eslint-disable-next-line no-control-regex
		.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
		.replace(/&/g, '&amp;')
		.replace(/</g, '&lt;')
		.replace(/>/g, '&gt;')
		.replace(/"/g, '&quot;');
}

/** Every element below `node` with this name, in document order; does not look inside those it finds. */
export function* descendants(node: XmlNode, name: string): Generator<XmlNode> {
	for (const child of node.children)
		if (child.name === name) yield child;
		else yield* descendants(child, name);
}

/** Replacements at places of a source text. Applied together; they may touch but not overlap. */
export class Edits {
	private readonly edits: { start: number; end: number; text: string; order: number }[] = [];

	replace(start: number, end: number, text: string): void {
		this.edits.push({ start, end, text, order: this.edits.length });
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
		if (this.edits.length === 0) return source;
		this.edits.sort((a, b) => a.start - b.start || a.end - b.end || a.order - b.order);
		const pieces: string[] = [];
		let at = 0;
		for (const { start, end, text } of this.edits) {
			if (start < at) throw new Error(`Edits overlap at ${start}.`);
			pieces.push(source.slice(at, start), text);
			at = end;
		}
		pieces.push(source.slice(at));
		return pieces.join('');
	}
}
