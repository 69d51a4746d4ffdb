import { Scope, XmlNode, type Reading } from './node.ts';
import { scan } from './scan.ts';
import { parseStrictly } from './strict.ts';

export { XmlNode };

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

const NO_PROPERTIES: ReadonlySet<string> = new Set();

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
	const kept = (markup: string, node: XmlNode | undefined) => {
		if (node) pieces.set(markup, node);
		return node;
	};
	const inPiece = (scope: Scope): Reading => ({ scope, properties: NO_PROPERTIES, piece: () => undefined });
	const parse = (text: string, reading: Reading) =>
		scan(text, reading) ?? parseStrictly(text, part, reading, allowDoctype);
	const { root, scope } = parse(source, {
		scope: new Scope(new Map(), namespaces),
		properties,
		piece: (markup, scope) => pieces.get(markup) ?? kept(markup, scan(markup, inPiece(scope))?.root)
	});
	const prefixes = new Map<string, string>();
	for (const [prefix, namespace] of scope.bindings) {
		const known = namespaces.get(namespace);
		if (known !== undefined && (!prefixes.has(known) || prefix !== '')) prefixes.set(known, prefix);
	}
	const fragment = (markup: string) => pieces.get(markup) ?? kept(markup, parse(markup, inPiece(scope)).root)!;
	return { source, root, prefixes, fragment };
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
