import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { openDocument } from '../../../src/lib/formats/index.ts';
import { docx, tbl, tc } from './documents.ts';

const W14 = 'http://schemas.microsoft.com/office/word/2010/wordml';
const row = (...cells: string[]) => `<w:tr>${cells.join('')}</w:tr>`;
/** A content control inside a paragraph, with these properties and this text. */
const control = (properties: string, text: string) =>
	`<w:p><w:sdt><w:sdtPr>${properties}</w:sdtPr><w:sdtContent><w:r><w:t>${text}</w:t></w:r></w:sdtContent></w:sdt></w:p>`;
const cell = (content: string) => `<w:tc><w:tcPr/>${content}</w:tc>`;
const purposeIn = async (bytes: Uint8Array<ArrayBuffer>, name: string, index = 0) =>
	(await openDocument(bytes, name)).tables[index]!.recognition.purpose.is;
const page = (html: string) => new TextEncoder().encode(`<!doctype html><title>x</title>${html}`);

describe('what cells hold beside text tells what a table is for', () => {
	it('in DOCX: check boxes, prompts and old form fields; controls that are filled in are text', async () => {
		const box = control(`<w14:checkbox xmlns:w14="${W14}"><w14:checked w14:val="0"/></w14:checkbox>`, '-');
		const asking = docx({ body: tbl([row(tc('Lunch'), cell(box)), row(tc('Tour'), cell(box))]) });
		assert.equal(await purposeIn(await asking, 'x.docx'), 'form');
		const prompt = control('<w:showingPlcHdr/><w:text/>', 'Choose');
		const prompts = docx({ body: tbl([row(tc('Applicant'), cell(prompt)), row(tc('Reason'), cell(prompt))]) });
		assert.equal(await purposeIn(await prompts, 'x.docx'), 'form');
		const date = (text: string) => cell(control('<w:date/>', text));
		const filled = docx({
			body: tbl([
				row(tc('Bed'), tc('Seen')),
				row(tc('North'), date('2031-05-02')),
				row(tc('South'), date('2031-05-03'))
			])
		});
		assert.equal(await purposeIn(await filled, 'x.docx'), 'data');
		const sign = '<w:p><w:r><w:sym w:font="Wingdings" w:char="F0A8"/></w:r></w:p>';
		const signs = docx({ body: tbl([row(tc('Lunch'), cell(sign)), row(tc('Tour'), cell(sign))]) });
		assert.equal(await purposeIn(await signs, 'x.docx'), 'form');
	});
	it('in HTML: inputs, pictures and tables inside', async () => {
		const asking = '<table><tr><td>Lunch<td><input type=checkbox><tr><td>Tour<td><input type=checkbox></table>';
		assert.equal(await purposeIn(page(asking), 'x.html'), 'form');
		const fields = '<table><tr><td>Name<td><input><tr><td>Reason<td><textarea></textarea></table>';
		assert.equal(await purposeIn(page(fields), 'x.html'), 'form');
		const picture = '<img alt="" src="data:image/gif;base64,R0lGODlhAQABAAAAACw=">';
		assert.equal(
			await purposeIn(page(`<table><tr><td>${picture}<td>${picture}<tr><td>The court<td>The stair</table>`), 'x.html'),
			'layout'
		);
		const inner = '<table><tr><th>Bed<th>Plants<tr><td>North<td>12<tr><td>South<td>8</table>';
		const framed = page(`<table><tr><td>${inner}<td>${inner}</table>`);
		assert.equal(await purposeIn(framed, 'x.html'), 'layout');
		assert.equal(await purposeIn(framed, 'x.html', 1), 'data', 'each inner table has a purpose of its own');
	});
});
