import { typeRoleOf, type House } from '../house.ts';
import { inkHex } from '../cascade/resolve.ts';
import type { FlatStyle, SetLeaf } from '../style/inherit.ts';
import { TYPE_ROLE_LEAVES } from '../style/leaves.ts';
import { DEFAULT_LINE_WEIGHT } from '../properties/defaults.ts';
import { isInkLeaf, leafDefinition } from '../properties/index.ts';
import { BORDER_STYLE } from '../properties/line.ts';
import { cssLength, type Leaf } from '../properties/property.ts';
import { parsePart } from '../style/parts.ts';
import type { LeafValue, LinePattern, LinePlace } from '../style/types.ts';

/** A name as part of a class or custom property. */
export const cssName = (name: string): string =>
	name
		.normalize('NFKD')
		.toLowerCase()
		.replace(/[^\p{L}\p{N}]+/gu, '-')
		.replace(/^-|-$/g, '') || 'style';

const isKnown = (ink: string) => ink === 'none' || ink.startsWith('#');
const colour = (ink: string) => (ink === 'none' ? 'transparent' : isKnown(ink) ? ink : `var(--ink-${cssName(ink)})`);

/** A selector of cells as one of what stands in them. */
const within = (cells: string, inside: string): string => `:is(${cells}) ${inside}`;

function border(leaves: ReadonlyMap<string, SetLeaf>, place: LinePlace): string | undefined {
	const said = (property: string) => leaves.get(`lines.${place}.${property}`)?.value;
	const pattern = said('pattern');
	if (pattern === undefined) return undefined;
	if (pattern === 'none') return 'none';
	const ink = said('ink');
	const weight = cssLength(String(said('weight') ?? DEFAULT_LINE_WEIGHT));
	return `${weight} ${BORDER_STYLE[pattern as LinePattern]} ${ink === undefined ? 'currentColor' : colour(String(ink))}`;
}

interface Selectors {
	/** The cells that the part rules. */
	readonly cells: string;
	/** Rows or columns; `ground` is the table. */
	readonly block: { readonly rows: string } | { readonly columns: string } | { readonly cells: string };
}

function selectorsOf(part: string): Selectors | undefined {
	const { family, number } = parsePart(part)!;
	const row = (name: string): Selectors => ({ cells: `.${name} > *`, block: { rows: `.${name}` } });
	const column = (name: string): Selectors => ({
		cells: `tr:not(.title, .note) > .${name}`,
		block: { columns: `.${name}` }
	});
	if (part === 'ground') return { cells: 'tr > *', block: { rows: 'tr' } };
	if (part.startsWith('columns:"')) return column(`column-${cssName(part.slice(9, -1))}`);
	switch (family) {
		case 'rowBand':
			return row(`band-${number}`);
		case 'columnBand':
			return {
				cells: `:is(.body, .group, .subtotal) > .stripe-${number}`,
				block: { columns: `.stripe-${number}` }
			};
		case 'columns':
			return column(`kind-${part.slice(8)}`);
		case 'firstColumn':
			return column('first');
		case 'lastColumn':
			return column('last');
		default:
			if (!part.startsWith('corner:')) return row(number ? `${family}-${number}` : family);
	}
	const [rowPart, side] = part.slice(7).split('-') as [string, string];
	const cells = `.${rowPart} > .${side}`;
	return { cells, block: { cells } };
}

/** Each edge is drawn as the top or start of the cell after it, so that the later rule of a higher rank decides it whole. */
function lineRules(scope: string, part: string, leaves: ReadonlyMap<string, SetLeaf>): string[] {
	const { block } = selectorsOf(part)!;
	const rules: string[] = [];
	const add = (selector: string, side: string, place: LinePlace) => {
		const value = border(leaves, place);
		if (value) rules.push(`:where(${scope}) :where(${selector}) { border-${side}: ${value}; }`);
	};
	if (part === 'ground') {
		add(
			'tr + tr > *, thead + tbody > tr:first-child > *, tbody + tbody > tr:first-child > *, tbody + tfoot > tr:first-child > *',
			'block-start',
			'betweenRows'
		);
		add('* > * + :is(td, th)', 'inline-start', 'betweenColumns');
		add('thead:first-of-type > tr:first-child > *, tbody:first-child > tr:first-child > *', 'block-start', 'top');
		add(':last-child > tr:last-child > *', 'block-end', 'bottom');
		add('tr > :first-child', 'inline-start', 'start');
		add('tr > :last-child', 'inline-end', 'end');
	} else if ('rows' in block) {
		const row = block.rows;
		const before = (selector: string) => `:has(> ${selector}:last-child) + * >`;
		add(
			`tr:not(${row}) + ${row} > *, :first-child > ${row}:first-child > *, ${before(`tr:not(${row})`)} ${row}:first-child > *`,
			'block-start',
			'top'
		);
		add(`${row} + tr:not(${row}) > *, ${before(row)} tr:not(${row}):first-child > *`, 'block-start', 'bottom');
		add(`:last-child > ${row}:last-child > *`, 'block-end', 'bottom');
		add(`${row} + ${row} > *, ${before(row)} ${row}:first-child > *`, 'block-start', 'betweenRows');
		add(`${row} > * + *`, 'inline-start', 'betweenColumns');
		add(`${row} > :first-child`, 'inline-start', 'start');
		add(`${row} > :last-child`, 'inline-end', 'end');
	} else if ('columns' in block) {
		const column = block.columns;
		add(
			`tr:not(.title, .note) > :not(${column}) + ${column}, tr:not(.title, .note) > ${column}:first-child`,
			'inline-start',
			'start'
		);
		add(`tr:not(.title, .note) > ${column} + :not(${column})`, 'inline-start', 'end');
		add(`tr:not(.title, .note) > ${column}:last-child`, 'inline-end', 'end');
		add(`tr:not(.title, .note) > ${column} + ${column}`, 'inline-start', 'betweenColumns');
		add(`tr:not(.title, .note) + tr:not(.title, .note) > ${column}`, 'block-start', 'betweenRows');
	} else {
		add(block.cells, 'block-start', 'top');
		add(block.cells, 'block-end', 'bottom');
		add(block.cells, 'inline-start', 'start');
		add(block.cells, 'inline-end', 'end');
	}
	return rules;
}

/**
 * A style as a CSS file. All selectors have the same specificity (`:where`), so that the order of the rules is the
 * order of the ranks. Rows carry their role (`header header-2`, `body band-2`), cells what their column is (`first`,
 * `kind-money`, `column-cost`); inks are custom properties on the table. What CSS cannot say (cell rules' conditions,
 * which a writer turns into classes; number formats) is left out.
 */
export function styleCss(style: FlatStyle, house: House): string {
	const scope = `.${cssName(style.name)}`;
	const inks = new Map<string, string>();
	const places: [string, ReadonlyMap<string, SetLeaf>][] = [
		...style.parts,
		...style.rules
			.filter(({ off }) => !off)
			.map(({ name, leaves }): [string, ReadonlyMap<string, SetLeaf>] => [`rule:${name}`, leaves])
	];
	for (const [, leaves] of places)
		for (const [path, { value }] of leaves)
			if (isInkLeaf(path) && !isKnown(String(value))) {
				const hex = inkHex(String(value), style, house);
				if (hex) inks.set(cssName(String(value)), hex);
			}
	const lines = [
		`/* ${style.name.replaceAll('*/', '* /')}: a table style. Put the class “${scope.slice(1)}” on a table. */`,
		`${scope} {`,
		...[...inks].sort().map(([name, hex]) => `\t--ink-${name}: ${hex.toLowerCase()};`),
		'\tborder-collapse: separate;',
		'\tborder-spacing: 0;',
		'}'
	];
	for (const [place, leaves] of places) {
		const opened = new Map<string, LeafValue>();
		const role = leaves.get('text.role');
		const found = role && (style.typeRoles.get(String(role.value)) ?? typeRoleOf(house, String(role.value)));
		for (const name of TYPE_ROLE_LEAVES) if (found?.[name] !== undefined) opened.set(`text.${name}`, found[name]);
		for (const [path, { value }] of leaves) opened.set(path, value);
		const said = [...opened].map(([path, value]) => ({ leaf: leafDefinition(path)!, value }));
		const declared = (isMeant: (leaf: Leaf) => boolean) =>
			said.flatMap(({ leaf, value }) => (isMeant(leaf) ? (leaf.css?.(value, colour) ?? []) : []));
		const body = declared(({ only }) => only === undefined);
		const ofTable = declared(({ only }) => only !== undefined);
		const selector = place.startsWith('rule:') ? `.rule-${cssName(place.slice(5))}` : selectorsOf(place)!.cells;
		const rule = (of: string, all: readonly string[]) => {
			if (all.length) lines.push(`${of} {`, ...all.map((one) => `\t${one};`), '}');
		};
		rule(`:where(${scope})`, ofTable);
		rule(`:where(${scope}) :where(${selector})`, body);
		for (const { leaf, value } of said) {
			const paragraphs = leaf.cssParagraphs?.(value);
			if (!paragraphs) continue;
			const inside = `:where(${scope}) :where(${within(selector, '> :is(p, div)')})`;
			rule(inside, paragraphs.all);
			rule(`:where(${scope}) :where(${within(selector, '> :is(p, div) + :is(p, div)')})`, paragraphs.following);
		}
		if (!place.startsWith('rule:')) lines.push(...lineRules(scope, place, leaves));
		else
			for (const [side, at] of [
				['block-start', 'top'],
				['block-end', 'bottom'],
				['inline-start', 'start'],
				['inline-end', 'end']
			] as const) {
				const value = border(leaves, at);
				if (value) lines.push(`:where(${scope}) :where(${selector}) { border-${side}: ${value}; }`);
			}
	}
	return lines.join('\n') + '\n';
}
