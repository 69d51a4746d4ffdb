import { escapeXml } from '../../core/escape.ts';
import { isSomewhere } from '../../core/layout/matrix.ts';
import type { DrawingObject } from '../../core/schedule/objects.ts';
import type { SvgDocument } from './read.ts';
import type { XmlNode } from '../package/xml.ts';

/** Elements that are shown; everything else is left out, scripts, foreign content, and what moves by itself among it. */
const SHOWN: ReadonlySet<string> = new Set(
	(
		'svg g defs symbol use a switch title desc style path rect circle ellipse line polyline polygon text tspan textPath image ' +
		'clipPath mask pattern marker linearGradient radialGradient stop filter feBlend feColorMatrix feComponentTransfer feComposite ' +
		'feConvolveMatrix feDiffuseLighting feDisplacementMap feDistantLight feDropShadow feFlood feFuncA feFuncB feFuncG feFuncR ' +
		'feGaussianBlur feMerge feMergeNode feMorphology feOffset fePointLight feSpecularLighting feSpotLight feTile feTurbulence'
	)
		.split(' ')
		.map((name) => `svg:${name}`)
);

/** Places that a style could be loaded from. */
const LOADS = /@import|url\(\s*(?!["']?#)|expression\(|image-set\(/i;

/** Whether an attribute may be shown: nothing that runs, nothing that leads out of the file. */
function isHarmless(name: string, value: string, element: string): boolean {
	if (name.includes('}')) return true;
	if (/^on/i.test(name)) return false;
	if (name === 'href' || name === 'xlink:href' || name === 'src')
		return (
			value.startsWith('#') || (element === 'svg:image' && /^data:image\/(png|jpeg|gif|webp);base64,/i.test(value))
		);
	if (name === 'xml:base') return false;
	return !LOADS.test(value);
}

const isShown = (node: XmlNode): boolean =>
	SHOWN.has(node.name) && !(node.name === 'svg:style' && LOADS.test(node.text));

/** An attribute's name that any SVG reader knows. */
const PLAIN_NAME = /^[A-Za-z_][\w.-]*$|^xlink:href$|^xml:space$/;

/**
 * An element as it may be shown, in the plainest markup: no prefixes, no attributes of others. `words` writes its text, which is
 * given as it stands in the source.
 */
export function plainMarkup(
	node: XmlNode,
	source: string,
	{ without, words }: { readonly without: ReadonlySet<XmlNode>; readonly words: (text: string, of: XmlNode) => string }
): string {
	if (!isShown(node) || without.has(node)) return '';
	const name = node.name.slice('svg:'.length);
	const attributes = Object.entries(node.attributes)
		.filter(([key, value]) => PLAIN_NAME.test(key) && isHarmless(key, value, node.name))
		.map(([key, value]) => ` ${key}="${escapeXml(value)}"`)
		.join('');
	const inside: string[] = [];
	let at = node.openEnd;
	const text = (to: number) => {
		if (to > at) inside.push(words(source.slice(at, to), node));
	};
	for (const child of node.children) {
		text(child.start);
		inside.push(plainMarkup(child, source, { without, words }));
		at = child.end;
	}
	if (!node.selfClosing) text(node.closeStart);
	return `<${name}${attributes}>${inside.join('')}</${name}>`;
}

/**
 * The drawing as it may be shown, as SVG text: our tables and whatever runs or loads left out. Objects are numbered in
 * `data-object`, layers in `data-shown-layer`. Elements in `without` are left out, too.
 */
export function shownText({ source, xml, groups, found }: SvgDocument, without?: ReadonlySet<XmlNode>): string {
	const { text } = source;
	const ours = new Set(groups.map(({ node }) => node));
	const objects = new Map<XmlNode, number>();
	found.objects.forEach(({ node }, i) => {
		if (!objects.has(node)) objects.set(node, i);
	});
	const layers = new Map(found.layers.map(({ node }, i) => [node, i]));
	const out: string[] = [];
	let at = 0;
	const skip = (from: number, to: number, instead = '') => {
		out.push(text.slice(at, from), instead);
		at = to;
	};
	const visit = (node: XmlNode) => {
		if (!isShown(node) || ours.has(node) || without?.has(node)) {
			skip(node.start, node.end);
			return;
		}
		const marks = [
			...(objects.has(node) ? [` data-object="${objects.get(node)}"`] : []),
			...(layers.has(node) ? [` data-shown-layer="${layers.get(node)}"`] : [])
		].join('');
		const isClean = Object.entries(node.attributes).every(([name, value]) => isHarmless(name, value, node.name));
		if (marks || !isClean) {
			const tag = text.slice(node.start, node.openEnd);
			const end = node.start + (/^<[^\s/>]+/.exec(tag)?.[0].length ?? 1);
			if (isClean) skip(end, end, marks);
			else skip(node.start, node.openEnd, cleanTag(tag, node.name, marks));
		}
		for (const child of node.children) visit(child);
	};
	at = xml.root.start;
	visit(xml.root);
	out.push(text.slice(at, xml.root.end));
	return out.join('');
}

function cleanTag(tag: string, element: string, marks: string): string {
	const kept = tag.replace(/\s+([^\s=/>]+)\s*=\s*("[^"]*"|'[^']*')/g, (whole, name: string, quoted: string) => {
		const local = name.replace(/^.*:(?=href$)/, '');
		return isHarmless(local, quoted.slice(1, -1), element) || name === 'xmlns' || name.startsWith('xmlns:')
			? whole
			: '';
	});
	return kept.replace(/^<[^\s/>]+/, (start) => start + marks);
}

/** An object as the page gets it: without its element. */
export interface ShownObjects {
	readonly kinds: readonly string[];
	readonly layers: readonly string[];
	readonly names: readonly string[];
	/** Per object: key, kind, layer, x, y, and its attributes as pairs of indices into names and values. */
	readonly keys: readonly string[];
	readonly kind: readonly number[];
	readonly layer: readonly number[];
	readonly x: readonly number[];
	readonly y: readonly number[];
	/** x1, y1, x2, y2 in millimetres, four per object. */
	readonly extents: readonly number[];
	readonly attributes: readonly (readonly number[])[];
	readonly values: readonly string[];
}

const rounded = (value: number) => Math.round(value * 1e6) / 1e6;

/** A drawing's objects, column by column, each name and value once. */
export function shownObjects({ found }: SvgDocument): ShownObjects {
	const numbered = () => {
		const known = new Map<string, number>();
		return {
			list: () => [...known.keys()],
			of: (text: string) => {
				let index = known.get(text);
				if (index === undefined) known.set(text, (index = known.size));
				return index;
			}
		};
	};
	const [kinds, layers, names, values] = [numbered(), numbered(), numbered(), numbered()];
	const { objects } = found;
	const kind = objects.map((object) => kinds.of(object.kind));
	const layer = objects.map((object) => layers.of(object.layer));
	const attributes = objects.map((object) =>
		Object.entries(object.attributes).flatMap(([name, value]) => [names.of(name), values.of(value)])
	);
	return {
		kinds: kinds.list(),
		layers: layers.list(),
		names: names.list(),
		keys: objects.map(({ key }) => key),
		kind,
		layer,
		x: objects.map(({ x }) => rounded(x)),
		y: objects.map(({ y }) => rounded(y)),
		extents: objects.flatMap(({ extent, x, y }) =>
			isSomewhere(extent)
				? [rounded(extent.x1), rounded(extent.y1), rounded(extent.x2), rounded(extent.y2)]
				: [x, y, x, y]
		),
		attributes,
		values: values.list()
	};
}

/** The objects of a drawing again, as its page got them. */
export function unpackObjects(data: ShownObjects, drawing: string): DrawingObject[] {
	return data.keys.map((key, i): DrawingObject => {
		const attributes: Record<string, string> = {};
		const said = data.attributes[i]!;
		for (let k = 0; k < said.length; k += 2) attributes[data.names[said[k]!]!] = data.values[said[k + 1]!]!;
		return {
			key,
			kind: data.kinds[data.kind[i]!]!,
			layer: data.layers[data.layer[i]!]!,
			drawing,
			x: data.x[i]!,
			y: data.y[i]!,
			attributes
		};
	});
}
