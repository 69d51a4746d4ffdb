import { escapeXml } from '../../core/escape.ts';

import { differencesOf, givesStyle, prepare, type StyleJob, type WriteOptions } from '../job.ts';
import { tallyOf, type Written } from '../tally.ts';
import { carriedAfter, carriedToJson } from '../carried.ts';
import { encodePieces } from '../package/encoding.ts';
import { Edits } from '../package/xml.ts';
import type { EntryText } from '../package/zip.ts';
import { DATA_FIELD, DATA_FILE, namespaceOf } from './names.ts';
import { PartWriter } from './part.ts';
import { readOdt, type OdtDocument } from './read.ts';
import type { OdtPart } from './story.ts';
import { lostLeaves, SAYABLE } from './properties/index.ts';
import { addTo, declarePrefixes } from './sections.ts';
import { OWN_STYLE } from './styling.ts';
import { templateMarkup } from './template.ts';

/**
 * Gives styles to tables of an ODT. Everything else in it comes out byte for byte. Looks travel as automatic styles named
 * after the style and part, for no consumer draws a table template by itself; the template goes along for reuse.
 */
export async function writeOdt(
	document: OdtDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions
): Promise<Written> {
	const { house, find, readBack = true } = options;
	const prepared = prepare(document, jobs, options);
	const byIndex = new Map(prepared.map((one) => [one.job.index, one]));
	const changed = new Map<string, EntryText>();
	const parts = [...new Set([document.content, ...(document.stylesPart ? [document.stylesPart] : [])])];
	const templates = templateMarkup(
		prepared.filter(({ job }) => givesStyle(job)),
		house
	);
	const carried = carriedAfter(document, jobs, house, find);
	const data = carriedToJson(carried);
	for (const part of parts) {
		const holdsStyles = part === (document.stylesPart ?? document.content);
		const build = (unused: ReadonlySet<string>) => {
			const edits = new Edits();
			const own = new PartWriter(document, part, byIndex);
			own.edit(edits);
			const section = part.xml.root.child('office:automatic-styles');
			for (const node of section?.children ?? [])
				if (unused.has(node.attribute('style:name') ?? '')) edits.remove(node);
			addTo(part, 'office:automatic-styles', 'office:body', own.maker.stylesMarkup, edits);
			const declared = new Set(
				(part.xml.root.child('office:font-face-decls')?.children ?? []).map(
					(face) => face.attribute('style:name') ?? ''
				)
			);
			addTo(part, 'office:font-face-decls', 'office:automatic-styles', own.maker.fontsMarkup(declared), edits);
			if (holdsStyles) templates(part, edits);
			if (!document.package) addFlatData(part, carried.tables.length ? data : undefined, edits);
			if (edits.count) declarePrefixes(part, edits);
			return edits;
		};
		const draft = build(new Set());
		if (draft.count === 0) continue;
		const text = draft.apply(part.xml.source);
		const ours = (part.xml.root.child('office:automatic-styles')?.children ?? [])
			.map((node) => node.attribute('style:name') ?? '')
			.filter((name) => name.startsWith(OWN_STYLE));
		const unused = new Set(ours.filter((name) => text.split(`"${name}"`).length <= 2));
		changed.set(part.name, unused.size ? build(unused).apply(part.xml.source) : text);
	}
	if (document.package && (carried.tables.length || document.package.has(DATA_FILE))) {
		changed.set(DATA_FILE, data);
		const manifest = await document.package.text('META-INF/manifest.xml');
		if (manifest && !manifest.includes(`"${DATA_FILE}"`)) changed.set('META-INF/manifest.xml', withEntry(manifest));
	}
	const bytes = document.package
		? await document.package.rewrite(changed)
		: encodePieces(
				document.flat!,
				[(changed.get('content.xml') ?? document.content.xml.source) as string],
				(char) => `&#x${char.codePointAt(0)!.toString(16)};`
			);
	const back = readBack ? await readOdt(bytes) : undefined;
	const tables = prepared.map((one) => {
		const differences = back ? differencesOf(document, back, one, SAYABLE) : [];
		return tallyOf(one, lostLeaves).account(one, differences);
	});
	return { bytes, account: { tables, remarks: [...document.remarks, ...(document.ownRemarks ?? [])] } };
}

function withEntry(manifest: string): string {
	const prefix = /<((?:[\w-]+:)?)manifest\b/.exec(manifest)?.[1] ?? 'manifest:';
	const attribute = prefix || 'manifest:';
	const entry = `<${prefix}file-entry ${attribute}full-path="${DATA_FILE}" ${attribute}media-type="application/json"/>`;
	const end = manifest.lastIndexOf(`</${prefix}manifest>`);
	return end < 0 ? manifest : manifest.slice(0, end) + entry + manifest.slice(end);
}

/** A flat document has no files: the data stands in a user-defined field, that goes where there is none. */
function addFlatData(part: OdtPart, data: string | undefined, edits: Edits): void {
	const meta = part.xml.root.child('office:meta');
	const old = meta?.children.find(
		(node) => node.name === 'meta:user-defined' && node.attribute('meta:name') === DATA_FIELD
	);
	const field =
		data &&
		`<meta:user-defined xmlns:meta="${namespaceOf('meta')}" meta:name="${DATA_FIELD}">${escapeXml(data)}</meta:user-defined>`;
	if (old) edits.replace(old.start, old.end, field ?? '');
	else if (field) addTo(part, 'office:meta', 'office:styles', field, edits);
}
