import { readDocx } from '../../src/lib/formats/docx/read.ts';
import { makeHtml } from '../../src/lib/formats/html/make.ts';
import { makeOdt } from '../../src/lib/formats/odt/make.ts';
import { seasonReport } from './season-report.ts';

/** The season report as an open text document. */
export const seasonReportOdt = async (): Promise<Uint8Array<ArrayBuffer>> =>
	makeOdt(await readDocx(await seasonReport()));

/** The season report as a web page. */
export const seasonReportHtml = async (): Promise<Uint8Array<ArrayBuffer>> =>
	new TextEncoder().encode(makeHtml(await readDocx(await seasonReport()), 'Season report 2031'));
