import { rowFacts } from './held.ts';
import type { Block, RunView } from '../../core/table/content.ts';
import type { WholeDocument } from '../document.ts';
import type { RowFacts } from '../held.ts';
import { languageTag, wholeBlocks, wholeTable } from '../whole.ts';
import type { PageStyles } from './cascade.ts';
import { elements, isBlock, parentOf, textContent, type Document, type Element } from './dom.ts';
import type { HtmlGrid } from './grid.ts';
import { listItemOf } from './lists.ts';
import type { TextRun } from './text.ts';
import { ownCaption, pictureIn, runView } from './beside.ts';
import type { PageReader } from './story.ts';

/** What rows say of themselves; those at the head of a table stand in its `thead`. */
function rowFactsOf({ rows }: HtmlGrid, styles: PageStyles): RowFacts[] {
	const heads = rows.findIndex(({ section }) => section?.name !== 'thead');
	return rows.map(({ node }, r) => ({ ...rowFacts(node, styles), ...(r < heads && { isHeader: true }) }));
}

/** White space collapses over the runs of a line. */
function collapsed(runs: readonly RunView[]): RunView[] {
	let endsInSpace = true;
	return runs.flatMap((run): RunView[] => {
		if (run.note) return [run];
		let text = run.text.replace(/\s+/g, ' ');
		if (endsInSpace) text = text.replace(/^ /, '');
		if (!text) return [];
		endsInSpace = text.endsWith(' ');
		return [{ ...run, text }];
	});
}

/** All of a page that a new file can hold. */
export function wholeHtml(page: Document, reader: PageReader): WholeDocument {
	const { styles, grids } = reader;
	const blocks = wholeBlocks(reader.blocks, reader.paragraphs, reader.wordless, ({ runs, item, pictures }) => {
		const around = blockOf(runs);
		return {
			runs: collapsed(runs.map((run) => (around ? runView(run, around, styles) : { text: run.text }))).map((run) => {
				// A link looks like one wherever it comes to.
				return run.link ? { text: run.text, link: run.link } : run;
			}),
			list: item && listItemOf(item, styles),
			pictures: pictures.flatMap(pictureIn)
		};
	});
	const html = [...elements(page)].find(({ name }) => name === 'html');
	const title = [...elements(page)].find(({ name }) => name === 'title');
	return {
		blocks: blocks.flatMap((block): Block[] => {
			const caption = block.kind === 'table' ? ownCaption(reader, block.index) : undefined;
			return caption ? [{ kind: 'paragraph', text: caption, isCaption: true }, block] : [block];
		}),
		tables: reader.tables.map((entry, index) =>
			wholeTable(entry, () => reader.contentOf(index, true), rowFactsOf(grids[index]!, styles))
		),
		title: (title && textContent(title).replace(/\s+/g, ' ').trim()) || undefined,
		language: languageTag(html?.attribs.lang)
	};
}

/** The block that a line stands in. */
function blockOf(runs: readonly TextRun[]): Element | undefined {
	let node = runs.find(({ text, note }) => note || text.trim())?.in;
	while (node && !isBlock(node) && parentOf(node)) node = parentOf(node);
	return node;
}
