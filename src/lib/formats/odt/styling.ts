import { escapeXml } from '../../core/escape.ts';
import type { Aspect } from '../../core/style/types.ts';
import { type XmlNode } from '../package/xml.ts';
import { aspectOf } from './properties/index.ts';
import type { Attributes } from './properties/property.ts';
import type { OdfStyles } from './styles.ts';

/** Names of the automatic styles that Heptarch makes begin so; those that nobody names any more go when the file is written. */
export const OWN_STYLE = 'Heptarch-';

/** A name as an XML NCName, the way ODF writes those of styles. */
export const styleName = (text: string): string =>
	text.replace(/[^\p{L}\p{N}.-]/gu, (char) => `_${char.codePointAt(0)!.toString(16)}_`);

const attributesMarkup = (attributes: Attributes): string =>
	Object.entries(attributes)
		.map(([name, value]) => ` ${name}="${escapeXml(value)}"`)
		.join('');

/** The property elements of a style, by name. */
export type Groups = Readonly<Record<string, Attributes>>;

/** Makes automatic styles (ODF 1.3 Part 3 §16.3), the same one for the same properties. */
export class StyleMaker {
	private readonly made = new Map<string, string>();
	private readonly markup: string[] = [];
	private readonly taken: Set<string>;
	private readonly fonts = new Map<string, string>();

	constructor(
		private readonly styles: OdfStyles,
		private readonly source: string
	) {
		this.taken = styles.names();
	}

	/**
	 * A style like the old one, without what the carried aspects said and with what `groups` say. `hint` names it so that
	 * a person can follow: the table style and the part.
	 */
	make(
		family: string,
		old: string | undefined,
		hint: string,
		groups: Groups,
		carry: ReadonlySet<Aspect>,
		keep: (element: string, attribute: string) => boolean = () => true
	): string {
		const key = JSON.stringify([family, old, hint, groups, [...carry]]);
		const known = this.made.get(key);
		if (known) return known;
		const before = this.styles.get(family, old);
		const parent = before?.isAutomatic ? before.parent : before?.name;
		const rest = new Map(Object.entries(groups));
		const inside = (before?.isAutomatic ? before.node.children : []).map((child) => {
			if (!child.name.endsWith('-properties')) return this.source.slice(child.start, child.end);
			const kept = Object.fromEntries(
				Object.entries(child.attributes).filter(([name, value]) => {
					const aspect = aspectOf(child.name, name, value);
					return !(aspect && carry.has(aspect)) && keep(child.name, name);
				})
			);
			const own = rest.get(child.name) ?? {};
			rest.delete(child.name);
			return this.element(child, { ...kept, ...own });
		});
		for (const [name, attributes] of rest)
			if (Object.keys(attributes).length) inside.push(`<${name}${attributesMarkup(attributes)}/>`);
		let number = 1;
		const base = `${OWN_STYLE}${styleName(hint)}`;
		while (this.taken.has(`${base}-${number}`)) number++;
		const name = `${base}-${number}`;
		this.taken.add(name);
		const other = Object.fromEntries(
			Object.entries(before?.isAutomatic ? before.node.attributes : {}).filter(
				([key]) => !['style:name', 'style:family', 'style:parent-style-name'].includes(key) && !key.startsWith('{')
			)
		);
		this.markup.push(
			`<style:style${attributesMarkup({ 'style:name': name, 'style:family': family, ...(parent && { 'style:parent-style-name': parent }), ...other })}>${inside.join('')}</style:style>`
		);
		this.made.set(key, name);
		return name;
	}

	private element(node: XmlNode, attributes: Attributes): string {
		const known = Object.fromEntries(Object.entries(attributes).filter(([name]) => !name.startsWith('{')));
		const inside = node.selfClosing ? '' : this.source.slice(node.openEnd, node.closeStart);
		if (!inside.trim()) return Object.keys(known).length ? `<${node.name}${attributesMarkup(known)}/>` : '';
		return `<${node.name}${attributesMarkup(known)}>${inside}</${node.name}>`;
	}

	/** The name that a font family is declared by. */
	font = (family: string): string => {
		this.fonts.set(family, family);
		return family;
	};

	get stylesMarkup(): string {
		return this.markup.join('');
	}
	/** Declarations of the families that were asked for and are not declared. */
	fontsMarkup(declared: ReadonlySet<string>): string {
		return [...this.fonts.keys()]
			.filter((family) => !declared.has(family))
			.map(
				(family) =>
					`<style:font-face${attributesMarkup({ 'style:name': family, 'svg:font-family': `'${family.replace(/'/g, '')}'` })}/>`
			)
			.join('');
	}
}
