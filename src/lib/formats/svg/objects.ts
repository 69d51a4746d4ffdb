import { pluralWord } from '../../core/words.ts';
import { InputError } from '../../core/errors.ts';
import { apply, isSomewhere, mapped, multiply, type Extent, type Matrix } from '../../core/layout/matrix.ts';
import { objectKey, type DrawingObject } from '../../core/schedule/objects.ts';
import type { XmlNode } from '../package/xml.ts';
import { Extents, innerMatrix, NOT_DRAWN, referenceOf, useMatrix, userLength } from './extents.ts';
import { TABLE_CLASS } from './names.ts';
import type { Sheet } from './sheet.ts';

/** An object with its element, and how far it reaches on the sheet in millimetres. */
export interface FoundObject extends DrawingObject {
	readonly node: XmlNode;
	readonly extent: Extent;
	/** Index of the innermost layer that it stands in; −1 for none. */
	readonly inLayer: number;
	/**
	 * Where nothing but its symbol says how it looks: that symbol, and the map of the symbol's units to millimetres. Such
	 * objects can be painted from pictures of their symbols.
	 */
	readonly painted?: { readonly target: XmlNode; readonly matrix: Matrix };
}

/** Something that objects are drawn by: a symbol, or any element that is used. */
export interface SymbolFacts {
	readonly name: string;
	readonly node: XmlNode;
	/** What it draws, in its own units. */
	readonly extent: Extent;
	/** Attributes of the first object drawn by it that say how it looks. */
	readonly looks: Readonly<Record<string, string>>;
}

/** A group that can be shown and hidden. */
export interface Layer {
	readonly name: string;
	readonly node: XmlNode;
	/** How deep it stands in other layers, from 0. */
	readonly depth: number;
	readonly objects: number;
}

export interface DrawingContents {
	readonly objects: readonly FoundObject[];
	readonly symbols: ReadonlyMap<string, SymbolFacts>;
	readonly layers: readonly Layer[];
	/** Rectangles that are drawn around most of the sheet, in millimetres. */
	readonly frames: readonly Extent[];
	readonly remarks: readonly string[];
}

/** Attributes of a group that say what the group is, and do not make it an object. */
const OF_GROUPS: ReadonlySet<string> = new Set(['data-layer', 'data-name', 'data-scale', 'data-unit']);
const LOOKS = ['class', 'style', 'fill', 'stroke', 'stroke-width', 'opacity', 'color'];
const MOST_LAYERS = 200;
const MOST_FRAMES = 4;
/** A frame is so much of the sheet wide and high. */
const FRAME_SHARE = 0.7;
/** An object that uses itself through others is followed this deep. */
const DEEPEST = 12;

export const isTable = (node: XmlNode): boolean =>
	node.name === 'svg:g' && (node.attribute('class') ?? '').split(/\s+/).includes(TABLE_CLASS);

/** Attributes that say nothing of how an element looks. */
const NO_LOOKS =
	/^(xmlns(:.*)?|xml:.*|id|x|y|width|height|href|xlink:href|transform|viewBox|preserveAspectRatio|version|data-.*|aria-.*|\{.*)$/;
const saysNoLooks = ({ attributes }: XmlNode): boolean => {
	for (const name in attributes) if (!NO_LOOKS.test(name)) return false;
	return true;
};

const titleOf = (node: XmlNode): string => node.child('svg:title')?.text.trim() ?? '';

/** What an element says of itself in `data-*`, without the prefix; undefined where it says nothing. */
function saidBy(node: XmlNode): Record<string, string> | undefined {
	let said: Record<string, string> | undefined;
	let isObject = false;
	for (const name in node.attributes) {
		if (!name.startsWith('data-')) continue;
		(said ??= {})[name.slice(5)] = node.attributes[name]!;
		if (node.name !== 'svg:g' || !OF_GROUPS.has(name)) isObject = true;
	}
	return isObject ? said : undefined;
}

/** Every element by its id, the first of each. */
function byIds(root: XmlNode): Map<string, XmlNode> {
	const ids = new Map<string, XmlNode>();
	const visit = (node: XmlNode) => {
		const id = node.attribute('id');
		if (id !== undefined && !ids.has(id)) ids.set(id, node);
		for (const child of node.children) visit(child);
	};
	visit(root);
	return ids;
}

/**
 * Finds a drawing's objects: elements with `data-*` attributes, each as often as it is drawn, with their places on the
 * sheet.
 */
export function findObjects(
	root: XmlNode,
	{ toPaper, width, height }: Pick<Sheet, 'toPaper' | 'width' | 'height'>
): DrawingContents {
	const ids = byIds(root);
	const extents = new Extents(ids);
	const objects: FoundObject[] = [];
	const symbols = new Map<string, SymbolFacts>();
	/** Kinds of which an object was met. */
	const looked = new Set<string>();
	const layers: { name: string; node: XmlNode; depth: number; objects: number }[] = [];
	const frames: Extent[] = [];
	const remarks: string[] = [];
	const counts = new Map<string, number>();
	const twice = new Set<string>();
	const nowhere = new Set<string>();
	const holds = new Map<XmlNode, boolean>();
	/** Whether an element that is used has objects inside. */
	const holdsObjects = (node: XmlNode, depth = 0): boolean => {
		let known = holds.get(node);
		if (known === undefined) {
			holds.set(node, false);
			known =
				depth < DEEPEST &&
				node.children.some(
					(child) =>
						saidBy(child) !== undefined ||
						holdsObjects(child, depth + 1) ||
						(child.name === 'svg:use' && holdsObjects(ids.get(referenceOf(child) ?? '') ?? child, depth + 1))
				);
			holds.set(node, known);
		}
		return known;
	};

	interface Place {
		readonly matrix: Matrix;
		readonly layer: string;
		readonly within: readonly (typeof layers)[number][];
		/** Ids of the references that led here. */
		readonly path: string;
		readonly depth: number;
		/** Nothing around says how things look. */
		readonly isPlain: boolean;
	}

	function add(node: XmlNode, said: Record<string, string>, place: Place): void {
		const isUse = node.name === 'svg:use';
		const reference = isUse ? referenceOf(node) : undefined;
		const target = reference === undefined ? undefined : ids.get(reference);
		if (isUse && !target) nowhere.add(node.attribute('href') ?? node.attribute('xlink:href') ?? 'nothing');
		const { kind: saidKind, ...attributes } = said;
		const kind = saidKind ?? (target ? reference! : node.name.replace('svg:', ''));
		if (target && !looked.has(kind)) {
			looked.add(kind);
			const looks = Object.fromEntries(
				LOOKS.flatMap((name) => (node.attribute(name) === undefined ? [] : [[name, node.attribute(name)!]]))
			);
			symbols.set(kind, { name: titleOf(target) || kind, node: target, extent: extents.used(target), looks });
		}
		const extent = extents.under(place.matrix, node);
		const own = multiply(place.matrix, innerMatrix(node));
		const at = isUse
			? apply(own, userLength(node.attribute('x')), userLength(node.attribute('y')))
			: isSomewhere(extent)
				? { x: (extent.x1 + extent.x2) / 2, y: (extent.y1 + extent.y2) / 2 }
				: apply(own, userLength(node.attribute('x')), userLength(node.attribute('y')));
		const id = node.attribute('id');
		const path = place.path && id !== undefined ? `${place.path}/${id}` : id;
		const base = objectKey(path, 1, { kind, attributes, ...at });
		const occurrence = (counts.get(base) ?? 0) + 1;
		counts.set(base, occurrence);
		if (occurrence > 1 && id !== undefined) twice.add(id);
		objects.push({
			key: occurrence > 1 ? objectKey(path, occurrence, { kind, attributes, ...at }) : base,
			kind,
			layer: place.layer,
			drawing: '',
			...at,
			attributes,
			node,
			inLayer: place.within.length ? layers.indexOf(place.within.at(-1)!) : -1,
			...(target &&
				place.isPlain &&
				!place.path &&
				saysNoLooks(node) && { painted: { target, matrix: multiply(place.matrix, useMatrix(node, target)) } }),
			extent: isSomewhere(extent) ? extent : { x1: at.x, y1: at.y, x2: at.x, y2: at.y }
		});
		for (const layer of place.within) layer.objects++;
	}

	function walk(node: XmlNode, place: Place): void {
		if (NOT_DRAWN.has(node.name) || isTable(node)) return;
		const said = node === root ? undefined : saidBy(node);
		if (said) add(node, said, place);
		else if (node.name === 'svg:rect' && frames.length < MOST_FRAMES) {
			const around = mapped(place.matrix, extents.of(node));
			if (around.x2 - around.x1 > width * FRAME_SHARE && around.y2 - around.y1 > height * FRAME_SHARE)
				frames.push(around);
		}
		if (node.name === 'svg:use') {
			const target = ids.get(referenceOf(node) ?? '');
			// A use that uses itself leads round and round; browsers draw nothing there.
			if (target && place.depth < DEEPEST && holdsObjects(target))
				walkInside(target, {
					...place,
					matrix: multiply(place.matrix, useMatrix(node, target)),
					path: `${place.path}${place.path ? '/' : ''}${node.attribute('id') ?? referenceOf(node)}`,
					depth: place.depth + 1
				});
			return;
		}
		let inner: Place = {
			...place,
			isPlain: place.isPlain && saysNoLooks(node),
			matrix: node === root ? place.matrix : multiply(place.matrix, innerMatrix(node))
		};
		if (node.name === 'svg:g' && !said && layers.length < MOST_LAYERS && !place.path) {
			const name =
				node.attribute('data-layer') ??
				node.attribute('data-name') ??
				Object.entries(node.attributes).find(([key]) => key.endsWith('}label'))?.[1] ??
				node.attribute('aria-label') ??
				(titleOf(node) || node.attribute('id'));
			if (name) {
				const layer = { name, node, depth: place.within.length, objects: 0 };
				layers.push(layer);
				inner = { ...inner, layer: name, within: [...place.within, layer] };
			}
		}
		walkInside(node, inner);
	}
	function walkInside(node: XmlNode, place: Place): void {
		for (const child of node.children) walk(child, place);
	}

	// Symbols that no object uses can still stand in a cell.
	for (const [id, node] of ids)
		if (node.name === 'svg:symbol')
			symbols.set(id, { name: titleOf(node) || id, node, extent: extents.inside(node), looks: {} });

	walk(root, { matrix: toPaper, layer: '', within: [], path: '', depth: 0, isPlain: true });
	if (twice.size)
		remarks.push(
			`${pluralWord(twice.size, 'One id stands', `${twice.size} ids stand`)} at several objects (${[...twice].slice(0, 3).join(', ')}${twice.size > 3 ? ' …' : ''}); they are told apart by their order in the file.`
		);
	if (nowhere.size)
		remarks.push(
			`${pluralWord(nowhere.size, 'A reference leads', `${nowhere.size} references lead`)} nowhere in this file (${[...nowhere].slice(0, 3).join(', ')}); what it would draw is not there.`
		);
	if (objects.length > MOST_OBJECTS)
		throw new InputError(
			'too-large',
			`This drawing has ${objects.length.toLocaleString('en')} objects with attributes; up to ${MOST_OBJECTS.toLocaleString('en')} are taken.`
		);
	return { objects, symbols, layers, frames, remarks };
}

const MOST_OBJECTS = 200_000;
