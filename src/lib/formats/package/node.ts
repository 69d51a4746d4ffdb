const NO_CHILDREN: readonly XmlNode[] = Object.freeze([]);
const NO_ATTRIBUTES: Readonly<Record<string, string>> = Object.freeze({});

/** An element with its place in the source text, so that it can be changed without touching anything else. */
export class XmlNode {
	/** The elements inside. Those of a property element count their offsets from its own start. */
	children: readonly XmlNode[] = NO_CHILDREN;
	/** Character data directly inside, entities resolved. */
	text = '';
	/** Source offsets (UTF-16), beside `start` at `<`: after the start tag's `>`, of the end tag's `<`, after its `>`. */
	openEnd = 0;
	closeStart = 0;
	end = 0;
	constructor(
		/** Canonical name: the prefix that the caller's names give to the namespace, and the local name. */
		readonly name: string,
		readonly attributes: Readonly<Record<string, string>>,
		readonly start: number,
		/** Of a property element: what its markup reads as by itself; the same node for the same markup. */
		readonly piece?: XmlNode
	) {
		if (piece) this.children = piece.children;
	}

	/** Adds character data. */
	take(text: string): void {
		this.text = this.text === '' ? text : this.text + text;
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

/** The engine's one copy of a name (keys of objects are): names are compared often, and so it is by identity. */
const shared = (name: string): string => Object.keys({ [name]: true })[0]!;

/** The namespace bindings that hold somewhere in a source, and what names come to there. */
export class Scope {
	private readonly elements = new Map<string, string>();
	private readonly attributes = new Map<string, string>();
	constructor(
		readonly bindings: ReadonlyMap<string, string>,
		private readonly namespaces: ReadonlyMap<string, string>
	) {}

	/** The scope inside an element with these attributes: this one, unless it binds prefixes itself. */
	inside(attributes: Readonly<Record<string, string>>): Scope {
		let bindings: Map<string, string> | undefined;
		for (const name in attributes)
			if (name === 'xmlns' || name.startsWith('xmlns:'))
				(bindings ??= new Map(this.bindings)).set(name.slice(6), attributes[name]!);
		return bindings ? new Scope(bindings, this.namespaces) : this;
	}
	element(name: string): string {
		return this.canonical(name, this.elements, this.bindings.get(''));
	}
	attribute(name: string): string {
		return this.canonical(name, this.attributes, undefined);
	}
	/** The attributes under their canonical names, in a small object of its own. */
	named(attributes: Readonly<Record<string, string>>): Readonly<Record<string, string>> {
		let named: Record<string, string> | undefined;
		for (const name in attributes) (named ??= {})[this.attribute(name)] = attributes[name]!;
		return named ?? NO_ATTRIBUTES;
	}

	private canonical(name: string, names: Map<string, string>, unprefixed: string | undefined): string {
		let known = names.get(name);
		if (known === undefined) {
			const colon = name.indexOf(':');
			const namespace = (colon < 0 ? unprefixed : this.bindings.get(name.slice(0, colon))) ?? '';
			const local = name.slice(colon + 1);
			const own = this.namespaces.get(namespace);
			known = shared(namespace === '' ? name : own === undefined ? `{${namespace}}${local}` : `${own}:${local}`);
			names.set(name, known);
		}
		return known;
	}
}
