import type { XmlNode } from '../package/xml.ts';

/** Properties by qualified name (`fo:color`), from all property elements of a style. */
export type Properties = ReadonlyMap<string, string>;

interface StyleNode {
	readonly name: string;
	readonly family: string;
	readonly parent: string | undefined;
	readonly isAutomatic: boolean;
	readonly own: Properties;
	readonly node: XmlNode;
}

const NO_PROPERTIES: Properties = new Map();
/** A chain longer than this goes round in a circle. */
const MAX_CHAIN = 100;

function propertiesOf(node: XmlNode): Properties {
	const out = new Map<string, string>();
	for (const child of node.children) {
		if (!child.name.endsWith('-properties')) continue;
		for (const [name, value] of Object.entries(child.attributes)) {
			// A shorthand stands for its four sides; what is said of a side itself counts, in whatever order.
			if (name === 'fo:padding' || name === 'fo:border' || name === 'style:border-line-width')
				for (const side of ['top', 'right', 'bottom', 'left']) {
					const long = name === 'style:border-line-width' ? `${name}-${side}` : `${name}-${side}`;
					if (child.attributes[long] === undefined) out.set(long, value);
				}
			else out.set(name, value);
		}
	}
	return out;
}

/** The styles of a document: named ones, automatic ones, defaults (ODF 1.3 Part 3 §16). */
export class OdfStyles {
	private readonly styles = new Map<string, StyleNode>();
	private readonly defaults = new Map<string, Properties>();
	private readonly fonts = new Map<string, string>();
	private readonly resolved = new Map<string, Properties>();

	/** `roots` are the documents that hold styles; later ones are looked at first for automatic styles. */
	constructor(roots: readonly XmlNode[]) {
		for (const root of roots)
			for (const section of root.children) {
				if (section.name === 'office:font-face-decls')
					for (const face of section.children)
						this.fonts.set(face.attribute('style:name') ?? '', face.attribute('svg:font-family') ?? '');
				if (section.name !== 'office:styles' && section.name !== 'office:automatic-styles') continue;
				for (const node of section.children) {
					const family = node.attribute('style:family') ?? '';
					if (node.name === 'style:default-style') this.defaults.set(family, propertiesOf(node));
					if (node.name !== 'style:style') continue;
					const name = node.attribute('style:name') ?? '';
					this.styles.set(`${family} ${name}`, {
						name,
						family,
						parent: node.attribute('style:parent-style-name'),
						isAutomatic: section.name === 'office:automatic-styles',
						own: propertiesOf(node),
						node
					});
				}
			}
	}

	get(family: string, name: string | undefined): StyleNode | undefined {
		return name === undefined ? undefined : this.styles.get(`${family} ${name}`);
	}
	names(): Set<string> {
		return new Set([...this.styles.values()].map(({ name }) => name));
	}
	/** Human name of the nearest named style. */
	displayName(family: string, name: string | undefined): string | undefined {
		let style = this.get(family, name);
		for (let i = 0; style?.isAutomatic && i < MAX_CHAIN; i++) style = this.get(family, style.parent);
		return style && (style.node.attribute('style:display-name') ?? style.name);
	}

	/** What a style says with its parents, and the default of its family below them. A circle of parents ends where it closes. */
	properties(family: string, name: string | undefined): Properties {
		const key = `${family} ${name ?? ''}`;
		let known = this.resolved.get(key);
		if (known) return known;
		const chain: Properties[] = [];
		const seen = new Set<string>();
		let style = this.get(family, name);
		while (style && !seen.has(style.name) && chain.length < MAX_CHAIN) {
			seen.add(style.name);
			chain.unshift(style.own);
			style = this.get(family, style.parent);
		}
		known = new Map([this.defaults.get(family) ?? NO_PROPERTIES, ...chain].flatMap((properties) => [...properties]));
		this.resolved.set(key, known);
		return known;
	}

	/** The family that a font name stands for. */
	fontFamily(properties: Properties): string | undefined {
		const name = properties.get('style:font-name');
		const family = (name !== undefined ? this.fonts.get(name) || name : undefined) ?? properties.get('fo:font-family');
		return family
			?.split(',')[0]
			?.trim()
			.replace(/^['"]|['"]$/g, '');
	}
}
