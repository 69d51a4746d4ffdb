import { LIST_MARKERS, type ListItem, type ListMarker } from '../../core/table/content.ts';
import { descendants, type XmlNode } from '../package/xml.ts';
import type { StyleSheet } from './styles.ts';

/** Number formats by their markers (ECMA-376 Part 1 §17.18.59). */
export const NUMBER_FORMATS: Readonly<Record<ListMarker, string>> = {
	disc: 'bullet',
	decimal: 'decimal',
	'lower-alpha': 'lowerLetter',
	'upper-alpha': 'upperLetter',
	'lower-roman': 'lowerRoman',
	'upper-roman': 'upperRoman'
};
const markerOf = (format: string): ListMarker =>
	LIST_MARKERS.find((one) => NUMBER_FORMATS[one] === format) ?? 'decimal';
const LEVELS = 9;

interface Level {
	/** Undefined for a level that shows nothing. */
	readonly marker: ListMarker | undefined;
	readonly start: number;
	/** After which level it starts again: every shallower one, where nobody says. */
	readonly restart: number | undefined;
}
interface Numbering {
	/** Whose count it goes on with. */
	readonly counts: string;
	readonly levels: readonly Level[];
	readonly starts: readonly (number | undefined)[];
}

const number = (node: XmlNode | undefined): number | undefined => {
	const value = node && Number(node.attribute('w:val'));
	return value !== undefined && Number.isInteger(value) && value >= 0 && value < 1e6 ? value : undefined;
};

function levelOf(lvl: XmlNode | undefined): Level {
	const format = lvl?.child('w:numFmt')?.attribute('w:val') ?? 'decimal';
	const isSilent = format === 'none' || (format !== 'bullet' && lvl?.child('w:lvlText')?.attribute('w:val') === '');
	return {
		marker: isSilent ? undefined : markerOf(format),
		start: number(lvl?.child('w:start')) ?? 0,
		restart: number(lvl?.child('w:lvlRestart'))
	};
}

/** The numberings of a document by their ids (§17.9). */
function numberings(root: XmlNode): ReadonlyMap<string, Numbering> {
	const abstract = new Map(
		root.children.flatMap((node) =>
			node.name === 'w:abstractNum' ? [[node.attribute('w:abstractNumId') ?? '', node] as const] : []
		)
	);
	const at = (parent: XmlNode | undefined, name: string, level: number) =>
		parent?.children.find((one) => one.name === name && Number(one.attribute('w:ilvl')) === level);
	const found = new Map<string, Numbering>();
	for (const num of root.children) {
		if (num.name !== 'w:num') continue;
		const counts = num.child('w:abstractNumId')?.attribute('w:val') ?? '';
		const overrides = Array.from({ length: LEVELS }, (_, level) => at(num, 'w:lvlOverride', level));
		found.set(num.attribute('w:numId') ?? '', {
			counts,
			levels: overrides.map((own, level) => levelOf(own?.child('w:lvl') ?? at(abstract.get(counts), 'w:lvl', level))),
			starts: overrides.map((own) => number(own?.child('w:startOverride')))
		});
	}
	return found;
}

/** What a paragraph, or the style that it wears, says of its place in a list (§17.9.18). */
function placeOf(paragraph: XmlNode, sheet: StyleSheet): { readonly id: string; readonly level: number } | undefined {
	let id: string | undefined;
	let level: number | undefined;
	const take = (pPr: XmlNode | undefined) => {
		const said = pPr?.child('w:numPr');
		id ??= said?.child('w:numId')?.attribute('w:val');
		level ??= number(said?.child('w:ilvl'));
	};
	const pPr = paragraph.child('w:pPr');
	take(pPr);
	let style = sheet.styles.get(pPr?.child('w:pStyle')?.attribute('w:val') ?? '');
	for (let depth = 0; style && id === undefined && depth < 100; depth++) {
		take(style.node.child('w:pPr'));
		style = sheet.styles.get(style.basedOn ?? '');
	}
	return id === undefined || id === '0' ? undefined : { id, level: Math.min(level ?? 0, LEVELS - 1) };
}

/** The paragraphs of stories that are items of lists, in the order in which they count. */
export function listItems(
	stories: readonly XmlNode[],
	root: XmlNode | undefined,
	sheet: StyleSheet
): ReadonlyMap<XmlNode, ListItem> {
	const items = new Map<XmlNode, ListItem>();
	if (!root) return items;
	const known = numberings(root);
	const counters = new Map<string, (number | undefined)[]>();
	const begun = new Set<string>();
	for (const story of stories)
		for (const paragraph of descendants(story, 'w:p')) {
			const place = placeOf(paragraph, sheet);
			const numbering = place && known.get(place.id);
			if (!place || !numbering) continue;
			let counter = counters.get(numbering.counts);
			if (!counter) counters.set(numbering.counts, (counter = []));
			if (!begun.has(place.id)) {
				begun.add(place.id);
				numbering.starts.forEach((start, level) => {
					if (start !== undefined) counter[level] = start - 1;
				});
			}
			const { level } = place;
			const { marker, start } = numbering.levels[level]!;
			const count = (counter[level] ?? start - 1) + 1;
			counter[level] = count;
			for (let deeper = level + 1; deeper < LEVELS; deeper++) {
				const restart = numbering.levels[deeper]!.restart;
				if (restart === undefined || (restart > 0 && level < restart)) counter[deeper] = undefined;
			}
			if (marker) items.set(paragraph, { level, marker, number: marker === 'disc' ? 1 : count });
		}
	return items;
}
