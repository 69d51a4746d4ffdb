import { escapeXml } from '../../core/escape.ts';
import type { CellContent, ListMarker, Note } from '../../core/table/content.ts';
import { inLists, isList, type List } from '../lists.ts';
import { W_NAMESPACE } from './names.ts';
import { NUMBER_FORMATS } from './numbering.ts';

const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
const LEVELS = 9;
const RAISED = '<w:rPr><w:vertAlign w:val="superscript"/></w:rPr>';

/** A part that a new document has when something asks for it. */
export interface ExtraPart {
	readonly name: string;
	/** Of its relationship and its content type. */
	readonly kind: string;
	readonly markup: string;
}

/** The lists and notes of a new document, which have parts of their own (ECMA-376 Part 1 §17.9, §17.11). */
export class Apparatus {
	private readonly lists: { readonly marker: ListMarker; readonly start: number }[] = [];
	private readonly notes: Record<Note['kind'], string[]> = { foot: [], end: [] };

	/** The w:numPr of those pieces of a text that are items of lists. */
	numbersOf(pieces: readonly CellContent[]): ReadonlyMap<CellContent, string> {
		const found = new Map<CellContent, string>();
		const visit = ({ marker, start, items }: List<CellContent>, level: number) => {
			const id = this.lists.push({ marker, start });
			for (const { is, inside } of items) {
				if (is)
					found.set(is, `<w:numPr><w:ilvl w:val="${Math.min(level, LEVELS - 1)}"/><w:numId w:val="${id}"/></w:numPr>`);
				for (const list of inside) visit(list, level + 1);
			}
		};
		for (const one of inLists(pieces, (piece) => ('runs' in piece ? piece.list : undefined)))
			if (isList(one)) visit(one, 0);
		return found;
	}

	/** The mark of a note in the text. */
	note({ kind, text }: Note): string {
		const id = this.notes[kind].push(text);
		return `<w:r>${RAISED}<w:${kind}noteReference w:id="${id}"/></w:r>`;
	}

	get parts(): ExtraPart[] {
		const notes = (['foot', 'end'] as const).flatMap((kind): ExtraPart[] =>
			this.notes[kind].length ? [{ name: `${kind}notes`, kind: `${kind}notes`, markup: this.notesMarkup(kind) }] : []
		);
		const numbering = { name: 'numbering', kind: 'numbering', markup: this.numberingMarkup() };
		return [...(this.lists.length ? [numbering] : []), ...notes];
	}

	private notesMarkup(kind: Note['kind']): string {
		const name = `w:${kind}note`;
		const line = (type: string, id: number, mark: string) =>
			`<${name} w:type="${type}" w:id="${id}"><w:p><w:r><w:${mark}/></w:r></w:p></${name}>`;
		const notes = this.notes[kind].map((text, i) => {
			const paragraphs = text
				.split('\n')
				.map(
					(words, at) =>
						`<w:p>${at === 0 ? `<w:r>${RAISED}<w:${kind}noteRef/></w:r>` : ''}<w:r><w:t xml:space="preserve">${at === 0 ? ' ' : ''}${escapeXml(words)}</w:t></w:r></w:p>`
				);
			return `<${name} w:id="${i + 1}">${paragraphs.join('')}</${name}>`;
		});
		return `${XML}<w:${kind}notes xmlns:w="${W_NAMESPACE}">${line('separator', -1, 'separator')}${line('continuationSeparator', 0, 'continuationSeparator')}${notes.join('')}</w:${kind}notes>`;
	}

	private numberingMarkup(): string {
		const abstract = this.lists.map(({ marker, start }, i) => {
			const levels = Array.from({ length: LEVELS }, (_, level) => {
				const text = marker === 'disc' ? '•' : `%${level + 1}.`;
				return `<w:lvl w:ilvl="${level}"><w:start w:val="${start}"/><w:numFmt w:val="${NUMBER_FORMATS[marker]}"/><w:lvlText w:val="${text}"/><w:lvlJc w:val="left"/><w:pPr><w:ind w:left="${360 * (level + 1)}" w:hanging="360"/></w:pPr></w:lvl>`;
			});
			return `<w:abstractNum w:abstractNumId="${i + 1}"><w:multiLevelType w:val="multilevel"/>${levels.join('')}</w:abstractNum>`;
		});
		const numbers = this.lists.map((_, i) => `<w:num w:numId="${i + 1}"><w:abstractNumId w:val="${i + 1}"/></w:num>`);
		return `${XML}<w:numbering xmlns:w="${W_NAMESPACE}">${abstract.join('')}${numbers.join('')}</w:numbering>`;
	}
}
