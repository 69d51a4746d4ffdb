import { baseKeymap, splitBlock, toggleMark } from 'prosemirror-commands';
import { history, redo, undo } from 'prosemirror-history';
import { keymap } from 'prosemirror-keymap';
import { Schema, type Mark, type Node } from 'prosemirror-model';
import { EditorState, TextSelection } from 'prosemirror-state';
import { EditorView } from 'prosemirror-view';
import type { CellContent, RunView } from '$lib/core/table/content.ts';

/** What stands in a cell: paragraphs of text with the emphasis that its words have of their own. */
const schema = new Schema({
	nodes: {
		doc: { content: 'paragraph+' },
		paragraph: { content: 'text*', parseDOM: [{ tag: 'p' }, { tag: 'div' }], toDOM: () => ['p', 0] },
		text: {}
	},
	marks: {
		weight: {
			attrs: { value: { default: 700 } },
			parseDOM: [{ tag: 'b' }, { tag: 'strong' }],
			toDOM: ({ attrs }) => ['span', { style: `font-weight:${Number(attrs.value)}` }, 0]
		},
		italic: {
			attrs: { value: { default: true } },
			parseDOM: [{ tag: 'i' }, { tag: 'em' }],
			toDOM: ({ attrs }) => ['span', { style: `font-style:${attrs.value ? 'italic' : 'normal'}` }, 0]
		},
		underline: {
			attrs: { value: { default: 'single' } },
			parseDOM: [{ tag: 'u' }],
			toDOM: ({ attrs }) => ['span', { style: `text-decoration:${attrs.value === 'none' ? 'none' : 'underline'}` }, 0]
		},
		ink: {
			attrs: { value: {} },
			toDOM: ({ attrs }) => ['span', { style: `color:${String(attrs.value)}` }, 0]
		},
		position: {
			attrs: { value: { default: 'super' } },
			parseDOM: [
				{ tag: 'sup', attrs: { value: 'super' } },
				{ tag: 'sub', attrs: { value: 'sub' } }
			],
			toDOM: ({ attrs }) => [attrs.value === 'sub' ? 'sub' : 'sup', 0]
		}
	}
});
const MARKS = ['weight', 'italic', 'underline', 'ink', 'position'] as const;

/** Emphasis that a person gives words while typing. */
export const EMPHASES = ['bold', 'italic', 'raised', 'lowered'] as const;
export type Emphasis = (typeof EMPHASES)[number];
const COMMANDS = {
	bold: toggleMark(schema.marks.weight),
	italic: toggleMark(schema.marks.italic),
	raised: toggleMark(schema.marks.position, { value: 'super' }),
	lowered: toggleMark(schema.marks.position, { value: 'sub' })
};

function documentOf(content: readonly CellContent[]): Node {
	const paragraphs = content.flatMap((piece) =>
		'runs' in piece
			? [
					schema.node(
						'paragraph',
						null,
						piece.runs
							.filter(({ text }) => text)
							.map((run) =>
								schema.text(
									run.text,
									MARKS.flatMap((name): Mark[] =>
										run[name] === undefined ? [] : [schema.mark(name, { value: run[name] })]
									)
								)
							)
					)
				]
			: []
	);
	return schema.node('doc', null, paragraphs.length ? paragraphs : [schema.node('paragraph')]);
}

function contentOf(document: Node): CellContent[] {
	const content: CellContent[] = [];
	document.forEach((paragraph) => {
		const runs: RunView[] = [];
		paragraph.forEach(({ text, marks }) =>
			runs.push({
				text: text ?? '',
				...Object.fromEntries(marks.map(({ type, attrs }) => [type.name, attrs.value as unknown]))
			} as RunView)
		);
		content.push({ runs });
	});
	return content;
}

interface Options {
	readonly content: readonly CellContent[];
	/** All of it is selected, so that the next letter takes its place; else the caret stands at the end. */
	readonly isFresh?: boolean;
	readonly label: string;
	/** Leaves the cell, taking what was typed or not, to where a key leads. */
	readonly onleave: (key: 'tab' | 'back' | 'below' | 'stay' | 'drop') => void;
	readonly oninput: (content: readonly CellContent[]) => void;
}

/** An editor of a cell's text. */
export class CellText {
	private readonly view: EditorView;

	constructor(place: HTMLElement, { content, label, onleave, oninput }: Options) {
		const leave = (key: Parameters<Options['onleave']>[0]) => () => {
			onleave(key);
			return true;
		};
		const doc = documentOf(content);
		this.view = new EditorView(place, {
			state: EditorState.create({
				doc,
				selection: TextSelection.atEnd(doc),
				plugins: [
					history(),
					keymap({
						Tab: leave('tab'),
						'Shift-Tab': leave('back'),
						'Mod-Enter': leave('below'),
						Escape: leave('drop'),
						F2: leave('stay'),
						Enter: splitBlock,
						'Mod-z': undo,
						'Mod-Shift-z': redo,
						'Mod-b': COMMANDS.bold,
						'Mod-i': COMMANDS.italic,
						'Mod-ArrowUp': COMMANDS.raised,
						'Mod-ArrowDown': COMMANDS.lowered
					}),
					keymap(baseKeymap)
				]
			}),
			attributes: { 'aria-label': label, role: 'textbox', 'aria-multiline': 'true' },
			dispatchTransaction: (transaction) => {
				this.view.updateState(this.view.state.apply(transaction));
				if (transaction.docChanged) oninput(this.content);
			}
		});
		this.view.focus();
	}

	get content(): CellContent[] {
		return contentOf(this.view.state.doc);
	}
	emphasise(how: Emphasis): void {
		COMMANDS[how](this.view.state, (transaction) => this.view.dispatch(transaction));
		this.view.focus();
	}
	end(): void {
		this.view.destroy();
	}
}
