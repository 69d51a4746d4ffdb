import { randomBytes } from 'node:crypto';
import { seasonReport } from '../demo/documents/season-report.ts';
import { Package } from '../src/lib/formats/package/zip.ts';
import { longList } from './csv.ts';

/** A DOCX whose main part is so large, with the season report's content over and over, and a picture of so many bytes. */
async function report(xml: number, picture: number): Promise<Uint8Array<ArrayBuffer>> {
	const archive = await Package.open(await seasonReport(), 'a DOCX document');
	const text = (await archive.text('word/document.xml'))!;
	const start = text.indexOf('<w:body>') + '<w:body>'.length;
	const end = text.lastIndexOf('<w:sectPr');
	const body = text.slice(start, end);
	const main = text.slice(0, start) + body.repeat(Math.max(1, Math.round(xml / body.length))) + text.slice(end);
	const parts = new Map<string, string | Uint8Array>([['word/document.xml', main]]);
	if (picture) parts.set('word/media/large.png', new Uint8Array(randomBytes(picture)));
	return archive.rewrite(parts);
}

/** Files as large as they come: 40 MB, 100,000 rows, 30 MB of XML. */
export async function largeFiles(): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }[]> {
	return [
		{ name: 'forty megabytes.docx', bytes: await report(2_000_000, 40 * 2 ** 20) },
		{ name: 'long list.csv', bytes: longList() },
		{ name: 'much text.docx', bytes: await report(30 * 2 ** 20, 0) }
	];
}
