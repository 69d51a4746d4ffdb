import { Interned, type Appearance, type Line, type Look } from '../../core/cascade/look.ts';
import type { Hex } from '../../core/colour.ts';
import type { LinePattern } from '../../core/style/types.ts';
import type { Shadow } from '../../core/properties/shadow.ts';
import type { Grid } from '../../core/table/grid.ts';
import { emu } from '../../core/units.ts';
import { bareAppearance } from '../bare.ts';
import { parseXml, type XmlNode } from '../package/xml.ts';
import { UNIT } from './draw.ts';
import { NAMESPACES } from './names.ts';

/** Every element below a node. */
function* below(node: XmlNode): Generator<XmlNode> {
	for (const child of node.children) {
		yield child;
		yield* below(child);
	}
}

/** All text in an element in its order, that of elements inside it included. */
function textIn(node: XmlNode, source: string): string {
	if (node.children.length === 0) return node.text;
	const bare = source.slice(node.openEnd, node.closeStart).replace(/<!--[\s\S]*?-->|<[^>]*>/g, '');
	return parseXml(`<t>${bare}</t>`, 'a cell', { namespaces: NAMESPACES }).root.text;
}

/** Texts that are drawn in a table's group, by "row column"; undefined where somebody took its cells apart. */
export function drawnTexts(group: XmlNode, source: string): Map<string, string> | undefined {
	const texts = new Map<string, string>();
	for (const node of below(group)) {
		const cell = node.attribute('data-cell');
		if (cell === undefined) continue;
		const lines = [...below(node)].filter(({ name }) => name === 'svg:text').map((text) => textIn(text, source).trim());
		texts.set(cell, lines.join(' ').replace(/\s+/g, ' ').trim());
	}
	return texts.size ? texts : undefined;
}

type Declarations = ReadonlyMap<string, string>;

/** The declarations of each class in a group's own style sheet. */
function classesOf(group: XmlNode): Map<string, Declarations> {
	const classes = new Map<string, Declarations>();
	const sheet = group.child('svg:style')?.text ?? '';
	for (const [, name, body] of sheet.matchAll(/\.([a-z]\d+)\s*\{([^}]*)\}/g))
		classes.set(
			name!,
			new Map(
				body!.split(';').flatMap((declaration): [string, string][] => {
					const colon = declaration.indexOf(':');
					return colon < 0 ? [] : [[declaration.slice(0, colon).trim(), declaration.slice(colon + 1).trim()]];
				})
			)
		);
	return classes;
}

const length = (text: string | undefined): number | undefined => {
	const value = Number.parseFloat(text ?? '');
	return Number.isFinite(value) ? value : undefined;
};

/** How a table looks by its drawn group: fills, type and lines, as its style sheet and shapes say. */
export function drawnAppearance(group: XmlNode, grid: Grid): Appearance {
	const classes = classesOf(group);
	const bare = bareAppearance(grid);
	const looks = new Interned<Look>();
	const lines = new Interned<Line | null>();
	lines.add(null);
	const cellLook = new Int32Array(grid.cells.length).fill(looks.add({}));
	const { across, down } = bare;
	const indexOf = new Map(grid.cells.map(({ r, c }, i) => [`${r} ${c}`, i]));
	for (const node of below(group)) {
		const cell = indexOf.get(node.attribute('data-cell') ?? '');
		if (cell !== undefined) cellLook[cell] = looks.add(cellLookOf(node, classes));
		const edge = node.attribute('data-edge')?.split(' ');
		if (edge?.length !== 4) continue;
		const line = lineOf(node, classes);
		const [at, from, to] = edge.slice(1).map(Number) as [number, number, number];
		const index = lines.add(line);
		for (let i = from; i < to; i++) {
			if (edge[0] === 'across') {
				if (across[at * grid.columns + i]! >= 0) across[at * grid.columns + i] = index;
			} else if (down[i * (grid.columns + 1) + at]! >= 0) down[i * (grid.columns + 1) + at] = index;
		}
	}
	const shadow = tableShadowOf(group, classes);
	return { cellLook, looks: looks.items, across, down, lines: lines.items, ...(shadow && { shadow }) };
}

/** The table's shadow: what its layers are filled with, moved as is said beside them. */
function tableShadowOf(group: XmlNode, classes: ReadonlyMap<string, Declarations>): Shadow | null {
	const layers = [...below(group)].find((node) => node.attribute('data-shadow') !== undefined);
	const fill = classes.get(layers?.child('svg:rect')?.attribute('class') ?? '')?.get('fill');
	const [x, y, blur] = (layers?.attribute('data-shadow') ?? '').split(' ').map(Number);
	return fill ? { x: emu(x ?? 0), y: emu(y ?? 0), blur: emu(blur ?? 0), ink: fill as Hex } : null;
}

/** The shadow of text, as its filter says it. */
function textShadowOf(text: Declarations): Shadow | null {
	const said = /^drop-shadow\((\S+)px (\S+)px (\S+)px (#[\dA-Fa-f]{6})\)$/.exec(text.get('filter') ?? '');
	if (!said) return null;
	const [x, y, deviation] = said.slice(1, 4).map((length) => Number(length) * UNIT) as [number, number, number];
	return { x: emu(x), y: emu(y), blur: emu(deviation * 2), ink: said[4] as Hex };
}

function cellLookOf(cell: XmlNode, classes: ReadonlyMap<string, Declarations>): Look {
	const said = (node: XmlNode | undefined) => classes.get(node?.attribute('class') ?? '');
	const nodes = [...below(cell)];
	const fill = said(nodes.find(({ name }) => name === 'svg:rect'))?.get('fill');
	const text = said(nodes.find(({ name }) => name === 'svg:text'));
	const size = length(text?.get('font-size'));
	const tracking = length(text?.get('letter-spacing'));
	return {
		fill: (fill as Hex | undefined) ?? 'none',
		...(text && {
			family: /^'([^']*)'/.exec(text.get('font-family') ?? '')?.[1] ?? '',
			...(size !== undefined && { size: emu(size * UNIT) }),
			weight: Number(text.get('font-weight')),
			italic: text.get('font-style') === 'italic',
			underline: text.get('text-decoration')?.includes('double')
				? ('double' as const)
				: text.get('text-decoration')?.includes('underline')
					? ('single' as const)
					: ('none' as const),
			...(tracking !== undefined && { tracking: emu(tracking * UNIT) }),
			ink: text.get('fill') as Hex,
			...(textShadowOf(text) && { textShadow: textShadowOf(text) })
		})
	};
}

/** A line by what its stroke shows; its pattern and whole thickness are said beside it. */
function lineOf(node: XmlNode, classes: ReadonlyMap<string, Declarations>): Line | null {
	const said = classes.get(node.attribute('class') ?? '');
	const [pattern, weight] = (node.attribute('data-line') ?? '').split(' ');
	if (!said?.get('stroke') || !pattern) return null;
	return { pattern: pattern as LinePattern, weight: emu(Number(weight)), ink: said.get('stroke') as Hex };
}
