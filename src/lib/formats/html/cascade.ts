import { compile } from 'css-select';
import * as domutils from 'domutils';
import { generate, parse as parseCss, walk, type CssNode, type Rule } from 'css-tree';
import { baseOf } from '../../core/layout/direction.ts';
import { isTag, type AnyNode } from 'domhandler';
import { elements, parentOf, textContent, type Document, type Element } from './dom.ts';
import { fontPx, longhands, physical } from './css.ts';

/** What the cascade gave an element: longhands, inherited ones included. Equal ones are one object. */
export type Computed = ReadonlyMap<string, string>;

interface SheetRule {
	readonly matches: (element: Element) => boolean;
	/** Ids, classes, types as one number: compared as a whole. */
	readonly specificity: number;
	readonly order: number;
	readonly declarations: readonly (readonly [property: string, value: string, important: boolean])[];
	/** What the last compound of its selector asks for, to find candidates by. */
	readonly key: string;
}

const INHERITED =
	/^(--.*|color|font-.*|line-height|letter-spacing|text-align|text-transform|text-shadow|writing-mode|direction|list-style-type|border-collapse|border-spacing)$/;
const NO_STYLES: Computed = new Map();

/** Specificity of a selector (Selectors 4 §17). */
function specificityOf(selector: CssNode): number {
	let [a, b, c] = [0, 0, 0];
	const visit = (node: CssNode): void => {
		if (node.type === 'IdSelector') a++;
		else if (node.type === 'ClassSelector' || node.type === 'AttributeSelector') b++;
		else if (node.type === 'TypeSelector') {
			if (node.name !== '*') c++;
		} else if (node.type === 'PseudoElementSelector') c++;
		else if (node.type === 'PseudoClassSelector') {
			if (node.name === 'where') return;
			if (['is', 'not', 'has'].includes(node.name)) {
				let most = 0;
				node.children?.forEach((list) => {
					if (list.type === 'SelectorList') list.children.forEach((one) => (most = Math.max(most, specificityOf(one))));
				});
				a += Math.floor(most / 1e6);
				b += Math.floor((most % 1e6) / 1e3);
				c += most % 1e3;
				return;
			}
			b++;
		}
		if ('children' in node && node.children && node.type !== 'PseudoClassSelector')
			(node.children as { forEach(visit: (child: CssNode) => void): void }).forEach(visit);
	};
	visit(selector);
	return Math.min(a, 999) * 1e6 + Math.min(b, 999) * 1e3 + Math.min(c, 999);
}

/** The id, class or tag that the last compound of a selector asks for; `*` where it asks for none. */
function keyOf(selector: CssNode): string {
	let key = '*';
	if (selector.type === 'Selector')
		selector.children.forEach((node) => {
			if (node.type === 'Combinator') key = '*';
			else if (node.type === 'IdSelector') key = `#${node.name}`;
			else if (node.type === 'ClassSelector' && !key.startsWith('#')) key = `.${node.name}`;
			else if (node.type === 'TypeSelector' && key === '*' && node.name !== '*') key = node.name.toLowerCase();
		});
	return key;
}

/** Blocks of a style sheet stand no deeper in each other where somebody wrote them. */
const MOST_NESTED = 100;
/** How deep blocks, brackets and parentheses stand in each other. */
function depthOf(css: string): number {
	let depth = 0;
	let most = 0;
	for (const sign of css.match(/[{}()[\]]/g) ?? [])
		if ('{(['.includes(sign)) most = Math.max(most, ++depth);
		else depth--;
	return most;
}

const isForScreen = (media: string): boolean =>
	media.trim() === '' || media.split(',').some((query) => /^\s*(only\s+)?(all|screen)\b(?!.*\band\b)/i.test(query));

/** Steps from element to element that one selector may take on a page, and all of them together. */
const STEPS = { selector: 2_000_000, page: 40_000_000 } as const;
class TooMuch extends Error {}

/**
 * What the selectors of a page may cost. Some search all that is around an element, over and over: with seven of them inside
 * each other, forty elements take a quarter of a minute. One that goes over its share matches nothing from then on.
 */
class Effort {
	/** Whether something of the style sheets was left out. */
	isPartial = false;
	private left: number = STEPS.page;
	private own = 0;
	private readonly spend = (): void => {
		if (--this.own < 0) throw new TooMuch();
	};
	private readonly adapter = {
		...domutils,
		isTag,
		getChildren: (node: AnyNode) => (this.spend(), domutils.getChildren(node)),
		getParent: (node: Element) => (this.spend(), domutils.getParent(node)),
		getSiblings: (node: AnyNode) => (this.spend(), domutils.getSiblings(node)),
		prevElementSibling: (node: AnyNode) => (this.spend(), domutils.prevElementSibling(node)),
		getAttributeValue: (node: Element, name: string) => (this.spend(), domutils.getAttributeValue(node, name))
	};

	/** What elements match a selector. Throws where it is none that a page at rest can have. */
	compile(selector: string): (element: Element) => boolean {
		const matches = compile<AnyNode, Element>(selector, { xmlMode: false, adapter: this.adapter });
		let share: number = STEPS.selector;
		return (element) => {
			this.own = Math.min(share, this.left);
			const had = this.own;
			try {
				return matches(element);
			} catch (error) {
				if (!(error instanceof TooMuch)) throw error;
				this.isPartial = true;
				return false;
			} finally {
				share -= had - Math.max(0, this.own);
				this.left -= had - Math.max(0, this.own);
			}
		};
	}
}

function readSheet(css: string, order: number, rules: SheetRule[], effort: Effort): number {
	const take = (node: Rule) => {
		const declarations: [string, string, boolean][] = [];
		node.block.children.forEach((child) => {
			if (child.type !== 'Declaration') return;
			const value = child.value.type === 'Raw' ? child.value.value.trim() : generate(child.value);
			for (const [property, part] of longhands(child.property.toLowerCase(), value))
				declarations.push([property, part, child.important !== false]);
		});
		if (!declarations.length || node.prelude.type !== 'SelectorList') return;
		node.prelude.children.forEach((selector) => {
			try {
				rules.push({
					matches: effort.compile(generate(selector)),
					specificity: specificityOf(selector),
					order: order++,
					declarations,
					key: keyOf(selector)
				});
			} catch {
				// A selector that only a living page can have (:hover, ::before) never concerns a table at rest.
			}
		});
	};
	if (depthOf(css) > MOST_NESTED) {
		effort.isPartial = true;
		return order;
	}
	const ast = parseCss(css, { parseCustomProperty: false, onParseError: () => undefined });
	walk(ast, function (node) {
		if (node.type === 'Atrule') {
			if (node.name === 'media' && node.prelude && isForScreen(generate(node.prelude))) return undefined;
			if (node.name === 'supports' || node.name === 'layer') return undefined;
			return walk.skip;
		}
		if (node.type === 'Rule') {
			take(node);
			return walk.skip;
		}
		return undefined;
	});
	return order;
}

/** What browsers do without being told (HTML Standard §15.3). */
const AGENT: Record<string, readonly (readonly [string, string])[]> = {
	p: [
		['margin-top', '1em'],
		['margin-bottom', '1em']
	],
	th: [['font-weight', 'bold'], ['text-align', 'center'], ['vertical-align', 'middle'], ...paddings('1px')],
	td: [['vertical-align', 'middle'], ...paddings('1px')],
	table: [
		['border-collapse', 'separate'],
		['border-spacing', '2px']
	],
	caption: [['text-align', 'center']],
	b: [['font-weight', 'bolder']],
	strong: [['font-weight', 'bolder']],
	i: [['font-style', 'italic']],
	em: [['font-style', 'italic']],
	cite: [['font-style', 'italic']],
	u: [['text-decoration-line', 'underline']],
	ins: [['text-decoration-line', 'underline']],
	code: [['font-family', 'monospace']],
	small: [['font-size', 'smaller']],
	big: [['font-size', 'larger']],
	h1: [['font-weight', 'bold']],
	h2: [['font-weight', 'bold']],
	h3: [['font-weight', 'bold']]
};
function paddings(width: string): [string, string][] {
	return ['top', 'right', 'bottom', 'left'].map((side) => [`padding-${side}`, width]);
}

const legacyLength = (value: string): string | undefined => {
	const match = /^\s*(\d+(?:\.\d+)?)(%?)/.exec(value);
	return match ? `${match[1]}${match[2] || 'px'}` : undefined;
};
const legacyColour = (value: string) => (/^[\da-f]{6}$/i.test(value.trim()) ? `#${value.trim()}` : value.trim());

/** Attributes that say how a table looks (HTML Standard §15.3.10); weaker than every style sheet of the page. */
function* hints(element: Element): Generator<[string, string]> {
	const { attribs, name } = element;
	if (attribs.dir !== undefined) {
		const dir = attribs.dir.trim().toLowerCase();
		if (dir === 'rtl' || dir === 'ltr') yield ['direction', dir];
		else if (dir === 'auto') yield ['direction', baseOf(textContent(element), 'ltr')];
	}
	if (attribs.bgcolor) yield ['background-color', legacyColour(attribs.bgcolor)];
	const isCell = name === 'td' || name === 'th';
	if (isCell || name === 'tr' || name === 'thead' || name === 'tbody' || name === 'tfoot') {
		if (attribs.align) yield ['text-align', attribs.align.toLowerCase()];
		if (attribs.valign) yield ['vertical-align', attribs.valign.toLowerCase()];
	}
	if (isCell) {
		let table = parentOf(element);
		while (table && table.name !== 'table') table = parentOf(table);
		if (table?.attribs.cellpadding !== undefined) yield* paddings(legacyLength(table.attribs.cellpadding) ?? '1px');
		if (table?.attribs.border !== undefined && table.attribs.border !== '0')
			for (const side of ['top', 'right', 'bottom', 'left']) {
				yield [`border-${side}-width`, '1px'];
				yield [`border-${side}-style`, 'inset'];
				yield [`border-${side}-color`, '#808080'];
			}
	}
	if (name === 'table') {
		if (attribs.cellspacing !== undefined) yield ['border-spacing', legacyLength(attribs.cellspacing) ?? '2px'];
		if (attribs.border !== undefined && attribs.border !== '0')
			for (const side of ['top', 'right', 'bottom', 'left']) {
				yield [`border-${side}-width`, legacyLength(attribs.border) ?? '1px'];
				yield [`border-${side}-style`, 'outset'];
				yield [`border-${side}-color`, '#808080'];
			}
	}
	if (name === 'font') {
		if (attribs.color) yield ['color', legacyColour(attribs.color)];
		if (attribs.face) yield ['font-family', attribs.face];
	}
}

/** Resolves the style sheets in a page, its inline styles and its old attributes for any element (CSS Cascade 5 §6). */
export class PageStyles {
	private readonly effort = new Effort();
	/** Whether its style sheets ask for more work than a page is worth, so that not all of them was read. */
	get isPartial(): boolean {
		return this.effort.isPartial;
	}
	private readonly byKey = new Map<string, SheetRule[]>();
	private readonly known = new Map<Element, Computed>();
	private readonly interned = new Map<string, Computed>();
	private readonly ids = new Map<Computed, number>();

	constructor(document: Document) {
		const rules: SheetRule[] = [];
		let order = 0;
		for (const element of elements(document))
			if (element.name === 'style' && isForScreen(element.attribs.media ?? ''))
				order = readSheet(
					element.children.map((child) => ('data' in child ? child.data : '')).join(''),
					order,
					rules,
					this.effort
				);
		for (const rule of rules) {
			const list = this.byKey.get(rule.key);
			if (list) list.push(rule);
			else this.byKey.set(rule.key, [rule]);
		}
	}

	private readonly inlines = new Map<string, ReturnType<typeof inlineDeclarations>>();
	/** Pages say the same inline style over and over. */
	private inline(style: string | undefined): ReturnType<typeof inlineDeclarations> {
		if (!style) return [];
		let known = this.inlines.get(style);
		if (!known) this.inlines.set(style, (known = inlineDeclarations(style)));
		return known;
	}

	private candidates(element: Element): SheetRule[] {
		const { id, class: classes = '' } = element.attribs;
		const keys = ['*', element.name, ...(id ? [`#${id}`] : []), ...classes.split(/\s+/).map((name) => `.${name}`)];
		return keys.flatMap((key) => this.byKey.get(key) ?? []).filter(({ matches }) => matches(element));
	}

	computed(element: Element): Computed {
		let computed = this.known.get(element);
		if (computed) return computed;
		const parent = parentOf(element);
		const inherited = parent ? this.computed(parent) : NO_STYLES;
		const rules = this.candidates(element).sort((x, y) => x.specificity - y.specificity || x.order - y.order);
		const hinted = [...hints(element)];
		const inline = this.inline(element.attribs.style);
		const key = [
			this.idOf(inherited),
			element.name,
			rules.map(({ order }) => order).join(),
			hinted.join(';'),
			element.attribs.style ?? ''
		].join('|');
		computed = this.interned.get(key);
		if (!computed) {
			const declared = new Map<string, string>([...(AGENT[element.name] ?? []), ...hinted]);
			for (const important of [false, true]) {
				const declare = ([property, value, isImportant]: readonly [string, string, boolean]) => {
					if (isImportant !== important) return;
					// What is said later comes later: two names can be of one side.
					declared.delete(property);
					declared.set(property, value);
				};
				for (const { declarations } of rules) declarations.forEach(declare);
				inline.forEach(declare);
			}
			computed = compute(declared, inherited);
			this.interned.set(key, computed);
		}
		this.known.set(element, computed);
		return computed;
	}

	/** Equal styles have equal numbers. */
	idOf(computed: Computed): number {
		let id = this.ids.get(computed);
		if (id === undefined) this.ids.set(computed, (id = this.ids.size));
		return id;
	}
}

/** The longhands of a `style` attribute. */
export function inlineDeclarations(style: string | undefined): [property: string, value: string, important: boolean][] {
	if (!style) return [];
	const out: [string, string, boolean][] = [];
	const ast = parseCss(style, {
		context: 'declarationList',
		parseCustomProperty: false,
		onParseError: () => undefined
	});
	walk(ast, (node) => {
		if (node.type !== 'Declaration') return;
		const value = node.value.type === 'Raw' ? node.value.value.trim() : generate(node.value);
		for (const [property, part] of longhands(node.property.toLowerCase(), value))
			out.push([property, part, node.important !== false]);
	});
	return out;
}

/** Puts custom properties in place; a value that names one that is not there is no value. */
function substitute(value: string, custom: ReadonlyMap<string, string>, depth = 0): string | undefined {
	if (!value.includes('var(')) return value;
	if (depth > 20) return undefined;
	const start = value.indexOf('var(');
	let level = 0;
	let end = start + 3;
	for (; end < value.length; end++) {
		if (value[end] === '(') level++;
		if (value[end] === ')' && --level === 0) break;
	}
	const inside = value.slice(start + 4, end);
	const comma = inside.indexOf(',');
	const name = (comma < 0 ? inside : inside.slice(0, comma)).trim();
	const put = custom.get(name) ?? (comma < 0 ? undefined : inside.slice(comma + 1).trim());
	return put === undefined
		? undefined
		: substitute(value.slice(0, start) + put + value.slice(end + 1), custom, depth + 1);
}

function compute(declared: ReadonlyMap<string, string>, inherited: Computed): Computed {
	const custom = new Map<string, string>();
	for (const [name, value] of [...inherited, ...declared]) if (name.startsWith('--')) custom.set(name, value);
	const out = new Map<string, string>();
	for (const [name, value] of inherited) if (INHERITED.test(name)) out.set(name, value);
	const parentSize = Number(inherited.get('font-size') ?? 16);
	const said = substitute(declared.get('direction') ?? '', custom)?.toLowerCase();
	const isRight = (said === 'ltr' || said === 'rtl' ? said : inherited.get('direction')) === 'rtl';
	for (const [sided, raw] of declared) {
		if (sided.startsWith('--')) {
			out.set(sided, raw);
			continue;
		}
		const name = physical(sided, isRight);
		const value = substitute(raw, custom);
		if (value === undefined) continue;
		const lower = value.toLowerCase();
		if (lower === 'inherit' || ((lower === 'unset' || lower === 'revert') && INHERITED.test(name))) {
			const from = inherited.get(name);
			if (from === undefined) out.delete(name);
			else out.set(name, from);
		} else if (lower === 'initial' || lower === 'unset' || lower === 'revert') out.delete(name);
		else if (name === 'font-size') out.set(name, String(fontPx(lower, parentSize) ?? parentSize));
		else out.set(name, value);
	}
	return out;
}
