import { InputError } from '../../core/errors.ts';
import { carriedFromJson, type Carried } from '../carried.ts';
import type { OpenDocument } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { decodeText, type EncodedText } from '../package/encoding.ts';
import { PageStyles } from './cascade.ts';
import { childElements, elements, parsePage, type Document, type Element } from './dom.ts';
import { type HtmlGrid } from './grid.ts';
import { countHeld } from './held.ts';
import type { Held } from '../held.ts';
import { wholeHtml } from './whole.ts';
import { PageReader } from './story.ts';

/** The type of the script element that holds Heptarch's own data; browsers do not run it. */
export const DATA_TYPE = 'application/heptarch+json';

/** A web page opened, with the way back from each table to its markup. */
export interface HtmlDocument extends OpenDocument {
	readonly kind: 'html';
	readonly source: EncodedText;
	readonly page: Document;
	readonly blockPlaces: readonly BlockPlace[];
	readonly pageStyles: PageStyles;
	readonly grids: readonly HtmlGrid[];
	readonly carriedData: Carried;
}

/** The encoding that a page declares (HTML Standard §13.2.3.2). */
function declaredEncoding(bytes: Uint8Array): string | undefined {
	const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4096));
	return /<meta[^>]+charset\s*=\s*["']?\s*([\w-]+)/i.exec(head)?.[1];
}

function readCarriedData(page: Document): Carried {
	for (const element of elements(page))
		if (element.name === 'script' && element.attribs.type === DATA_TYPE)
			return carriedFromJson(element.children.map((child) => ('data' in child ? child.data : '')).join(''));
	return carriedFromJson(undefined);
}

/** Opens a web page. Nothing in it is run, and nothing outside it is fetched. Throws InputError for what is no page. */
export function readHtml(bytes: Uint8Array): HtmlDocument {
	const source = decodeText(bytes, declaredEncoding(bytes));
	if (source.text.includes('\0') || !/<[a-z!]/i.test(source.text))
		throw new InputError('not-a-page', 'This is no web page: there is no markup in it. Was it renamed?');
	const page = parsePage(source.text);
	const reader = new PageReader(new PageStyles(page), readCarriedData(page));
	for (const element of childElements(page, 'html'))
		for (const body of childElements(element, 'body')) reader.flow(body);
	const remarks: string[] = [];
	const all = [...elements(page)];
	if (all.some(({ name, attribs }) => name === 'link' && /stylesheet/i.test(attribs.rel ?? '')))
		remarks.push('This page takes style sheets from other files; what they say is not known here.');
	if (reader.styles.isPartial)
		remarks.push(
			'The style sheets of this page ask for more work than a page is worth, so its style is only partly read: some of its looks may be missing here. The file keeps them.'
		);
	return {
		kind: 'html',
		blocks: reader.blocks,
		blockPlaces: reader.places,
		tables: reader.tables,
		styles: reader.carried.styles,
		remarks,
		whole: async () => wholeHtml(page, reader),
		held(only) {
			const held: Held = new Map();
			for (const node of only ? only.map((index) => reader.grids[index]!.node) : [page as unknown as Element])
				countHeld(node, held, reader.styles);
			return held;
		},
		source,
		page,
		pageStyles: reader.styles,
		grids: reader.grids,
		carriedData: reader.carried
	};
}
