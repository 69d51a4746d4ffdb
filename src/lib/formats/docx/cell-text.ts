import type { XmlNode } from '../package/xml.ts';
import type { ParagraphContext, PropertyReader, RunContext } from './looks.ts';
import type { TextLayer } from './properties/text.ts';
import { paragraphsOf, runsOf, runText } from './tables.ts';

export interface SourceRun {
	readonly node: XmlNode;
	readonly context: RunContext;
	readonly text: string;
}

/** A cell's paragraphs and runs with what they say of themselves. */
export type CellText = readonly {
	readonly node: XmlNode;
	readonly context: ParagraphContext;
	readonly runs: readonly SourceRun[];
}[];

export function readCellText(cell: XmlNode, reader: PropertyReader): CellText {
	return paragraphsOf(cell).map((node) => {
		const context = reader.paragraph(node.child('w:pPr'));
		const runs = runsOf(node).map((run) => ({
			node: run,
			context: reader.run(run.child('w:rPr'), context.styleId),
			text: runText(run)
		}));
		return { node, context, runs };
	});
}

/** Settings that an author gives words inside a text; what all of a cell's text has in common is its look instead. */
const EMPHASIS = ['bold', 'italic', 'underline', 'caps', 'smallCaps', 'ink', 'behind'] as const;
/** What words keep where a style drops their emphasis: a mark behind them is content. */
const MARKS: readonly (typeof EMPHASIS)[number][] = ['behind'];
export const NO_FIELDS: ReadonlySet<keyof TextLayer> = new Set();
export const NO_EMPHASIS = () => NO_FIELDS;

/** What a cell's words say of themselves where they all say the same, and the paragraph that they first stand in. */
interface EvenText {
	readonly paragraph: ParagraphContext | undefined;
	/** Undefined where there are no words. */
	readonly run: RunContext | undefined;
}

/** Undefined where some words of the cell stand out among the others, or are symbols. */
export function evenText(cell: XmlNode, reader: PropertyReader): EvenText | undefined {
	let first: ParagraphContext | undefined;
	let common: RunContext | undefined;
	for (const node of paragraphsOf(cell)) {
		const paragraph = reader.paragraph(node.child('w:pPr'));
		first ??= paragraph;
		for (const run of runsOf(node)) {
			if (!runText(run).trim()) continue;
			const context = reader.run(run.child('w:rPr'), paragraph.styleId);
			if (context.isSymbol || (common && context !== common)) return undefined;
			if (!common) first = paragraph;
			common = context;
		}
	}
	return { paragraph: first, run: common };
}

/**
 * Tells for each run of a cell which of its own settings are emphasis inside the text: set on some words and not on
 * others. (Of several inks, the one that most of the text has is the look.) Symbol fonts are content wherever they stand.
 * Where it is known what runs show, words that show the same do not stand out, however they come to it.
 */
export function emphasisOf(
	content: CellText,
	{ shown, drops = false }: { shown?: (context: RunContext) => TextLayer; drops?: boolean } = {}
): (context: RunContext) => ReadonlySet<keyof TextLayer> {
	const runs = content.flatMap((paragraph) => paragraph.runs.filter(({ text }) => text.trim()));
	const mark = content.find(({ runs }) => runs.some(({ text }) => text.trim()))?.context.mark;
	const uneven = new Set<(typeof EMPHASIS)[number]>();
	/** What of an uneven field is no emphasis. */
	const even = new Map<keyof TextLayer, unknown>();
	for (const field of drops ? MARKS : EMPHASIS) {
		const share = new Map<unknown, number>();
		for (const { context, text } of runs)
			share.set(context.direct[field], (share.get(context.direct[field]) ?? 0) + text.length);
		if (share.size < 2) continue;
		if (shown && new Set(runs.map(({ context }) => shown(context)[field])).size < 2) continue;
		uneven.add(field);
		// Where all words say it, the rest are those that say what the mark of their paragraph does, or else no.
		const marked = mark && (shown ? shown(mark) : mark.direct)[field];
		if (!share.has(undefined)) even.set(field, share.has(marked) ? marked : field === 'underline' ? 'none' : false);
		if (field === 'ink' && (share.has(undefined) || !share.has(marked)))
			even.set('ink', [...share].reduce((most, next) => (next[1] > most[1] ? next : most))[0]);
	}
	return ({ direct, isSymbol }) => {
		const kept = new Set<keyof TextLayer>();
		for (const field of uneven) if (direct[field] !== undefined && direct[field] !== even.get(field)) kept.add(field);
		if (isSymbol) kept.add('family');
		return kept.size ? kept : NO_FIELDS;
	};
}

/** A run's direct settings with only those fields, or all but those. */
export function directOnly(direct: TextLayer, fields: ReadonlySet<keyof TextLayer>, keep: boolean): TextLayer {
	return Object.fromEntries(
		Object.entries(direct).filter(([field]) => fields.has(field as keyof TextLayer) === keep)
	) as TextLayer;
}
