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

/** Names that several property elements of one style have, and what they are of. */
const SHARED = /^fo:(background-color|padding|border)/;
const BELONGS: Readonly<Record<string, string>> = {
	'style:paragraph-properties': 'paragraph ',
	'style:text-properties': 'text '
};
/** The names of backgrounds behind a paragraph and behind letters, among {@link Properties}. */
export const PARAGRAPH_FILL = 'paragraph fo:background-color';
export const TEXT_FILL = 'text fo:background-color';

function propertiesOf(node: XmlNode): Properties {
	const out = new Map<string, string>();
	for (const child of node.children) {
		if (!child.name.endsWith('-properties')) continue;
		const whose = BELONGS[child.name];
		for (const [name, value] of Object.entries(child.attributes)) {
			if (whose && SHARED.test(name)) out.set(whose + name, value);
			// A shorthand stands for its four sides; what is said of a side itself counts, in whatever order.
			else if (name === 'fo:padding' || name === 'fo:border' || name === 'style:border-line-width')
				for (const side of ['top', 'right', 'bottom', 'left']) {
					const long = name === 'style:border-line-width' ? `${name}-${side}` : `${name}-${side}`;
					if (child.attributes[long] === undefined) out.set(long, value);
				}
			else out.set(name, value);
		}
	}
	return out;
}

/** What a cell's style says of the cell itself, and not of the text in it. */
const OF_CELL =
	/^(fo:(background-color|border|padding|wrap-option)|style:(border|diagonal|vertical-align|rotation|writing-mode|shadow|cell-protect|print-content|decimal-places|text-align-source|direction|glyph|shrink|repeat-content))/;

/** The styles of a document: named ones, automatic ones, defaults (ODF 1.3 Part 3 §16). */
export class OdfStyles {
	private readonly styles = new Map<string, StyleNode>();
	private readonly defaults = new Map<string, Properties>();
	private readonly fonts = new Map<string, string>();
	private readonly lists = new Map<string, XmlNode>();
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
					if (node.name === 'text:list-style') this.lists.set(node.attribute('style:name') ?? '', node);
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
	/** A list style (ODF 1.3 Part 3 §16.30). */
	list(name: string | undefined): XmlNode | undefined {
		return name === undefined ? undefined : this.lists.get(name);
	}
	names(): Set<string> {
		return new Set([...[...this.styles.values()].map(({ name }) => name), ...this.lists.keys()]);
	}
	/** Human name of the nearest named style. */
	displayName(family: string, name: string | undefined): string | undefined {
		let style = this.get(family, name);
		for (let i = 0; style?.isAutomatic && i < MAX_CHAIN; i++) style = this.get(family, style.parent);
		return style && (style.node.attribute('style:display-name') ?? style.name);
	}

	/**
	 * What a style says with its parents, and the default of its family below them; `between` lies over that default. A circle of
	 * parents ends where it closes.
	 */
	properties(family: string, name: string | undefined, between?: Properties): Properties {
		const key = `${family} ${name ?? ''} ${between ? this.idOf(between) : ''}`;
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
		const below = [this.defaults.get(family) ?? NO_PROPERTIES, between ?? NO_PROPERTIES];
		known = new Map([...below, ...chain].flatMap((properties) => [...properties]));
		this.resolved.set(key, known);
		return known;
	}

	private readonly ids = new WeakMap<Properties, number>();
	private lastId = 0;
	private idOf(properties: Properties): number {
		let id = this.ids.get(properties);
		if (id === undefined) this.ids.set(properties, (id = ++this.lastId));
		return id;
	}

	/** Properties of a paragraph in a cell: what the cell's style says of its text lies under its own. */
	inCell(paragraph: string | undefined, cell: string | undefined): Properties {
		return this.properties('paragraph', paragraph, this.textOfCell(cell));
	}
	private readonly cellTexts = new Map<string, Properties | undefined>();
	private textOfCell(cell: string | undefined): Properties | undefined {
		if (cell === undefined) return undefined;
		if (!this.cellTexts.has(cell)) {
			const said = [...this.properties('table-cell', cell)].filter(([name]) => !OF_CELL.test(name));
			this.cellTexts.set(cell, said.length ? new Map(said) : undefined);
		}
		return this.cellTexts.get(cell);
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
