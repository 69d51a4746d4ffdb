import { madeAndStyled, partOf } from '../anew.ts';
import type { Format } from '../format.ts';
import { html as about } from './about.ts';
import { makeHtml } from './make.ts';
import { readHtml, type HtmlDocument } from './read.ts';
import { rewriteRowsHtml } from './rewrite-rows.ts';
import { plainRows, writeRowsAsHtml } from './rows.ts';
import { writeHtml } from './write.ts';

export const html: Format<HtmlDocument> = {
	...about,
	brings: true,
	sniff: ({ text }) => (/^\s*<(!doctype|html|table|head|body|meta)\b/i.test(text) ? 2 : 0),
	open: readHtml,
	write: writeHtml,
	make(making) {
		const rows = plainRows(making.document, making.jobs, making.options);
		if (rows) return writeRowsAsHtml(rows, making.options);
		return madeAndStyled(html, making, new TextEncoder().encode(makeHtml(partOf(making), making.options.title)));
	},
	rewriteRows: rewriteRowsHtml
};
