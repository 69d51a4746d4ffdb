import { SaxesParser } from 'saxes';
import { InputError } from '../../core/errors.ts';
import { plural } from '../../core/words.ts';
import { BUDGET } from '../limits.ts';
import { Package } from '../package/zip.ts';
import { evened, type Sheet } from './sheet.ts';

/** Names without their prefix, as writers choose those freely. */
const local = (name: string): string => name.slice(name.indexOf(':') + 1);

/** Walks through XML; `open` and `close` get names without prefix, `text` what stands between. Throws InputError for what is none. */
function walk(
	xml: string,
	where: string,
	on: {
		open?: (name: string, attributes: Readonly<Record<string, string>>) => void;
		close?: (name: string) => void;
		text?: (text: string) => void;
	}
): void {
	const parser = new SaxesParser();
	parser.on('error', () => {
		throw new InputError('damaged', `“${where}” in this file is not well-formed XML.`, where);
	});
	parser.on('doctype', () => {
		throw new InputError(
			'damaged',
			`“${where}” in this file declares a document type, which no such file does.`,
			where
		);
	});
	parser.on('opentag', ({ name, attributes }) => on.open?.(local(name), attributes));
	parser.on('closetag', ({ name }) => on.close?.(local(name)));
	parser.on('text', (text) => on.text?.(text));
	parser.write(xml).close();
}

/** The strings that cells share (ECMA-376 Part 1, §18.4.8); text of phonetic guides is left out. */
function sharedStrings(xml: string | undefined): string[] {
	const strings: string[] = [];
	let text = '';
	let isText = false;
	let guides = 0;
	if (xml)
		walk(xml, 'xl/sharedStrings.xml', {
			open: (name) => {
				if (name === 'si') text = '';
				else if (name === 'rPh') guides++;
				isText = name === 't' && guides === 0;
			},
			text: (more) => isText && (text += more),
			close: (name) => {
				if (name === 't') isText = false;
				else if (name === 'rPh') guides--;
				else if (name === 'si') strings.push(text);
			}
		});
	return strings;
}

/** How a number is shown: what it means beyond its digits. */
type Shown = 'number' | 'date' | 'time' | 'percent';

/** What a format code says (§18.8.31), without what it quotes. */
function shownBy(code: string): Shown {
	const bare = code
		.split(';')[0]!
		.replace(/"[^"]*"|\\.|\[[^\]]*\]|_./g, '')
		.toLowerCase();
	if (bare.includes('%')) return 'percent';
	if (/[yd]/.test(bare) || (/m/.test(bare) && !/[hs]/.test(bare))) return 'date';
	return /[hs]/.test(bare) ? 'time' : 'number';
}
/** Formats that a file need not spell out (§18.8.30). */
const builtIn = (id: number): Shown =>
	id === 9 || id === 10
		? 'percent'
		: (id >= 14 && id <= 17) || id === 22 || (id >= 27 && id <= 36) || (id >= 50 && id <= 58)
			? 'date'
			: (id >= 18 && id <= 21) || (id >= 45 && id <= 47)
				? 'time'
				: 'number';

/** How the cells of each style show their numbers. */
function shownByStyle(xml: string | undefined): Shown[] {
	const codes = new Map<number, string>();
	const styles: Shown[] = [];
	let isCell = false;
	if (xml)
		walk(xml, 'xl/styles.xml', {
			open: (name, attributes) => {
				if (name === 'numFmt') codes.set(Number(attributes.numFmtId), attributes.formatCode ?? '');
				else if (name === 'cellXfs') isCell = true;
				else if (name === 'xf' && isCell) {
					const id = Number(attributes.numFmtId ?? 0);
					const code = codes.get(id);
					styles.push(code === undefined ? builtIn(id) : shownBy(code));
				}
			},
			close: (name) => name === 'cellXfs' && (isCell = false)
		});
	return styles;
}

const DAY = 86_400_000;
/** A day of 1900 or 1904 (§18.17.4.1) as ISO 8601; 1900 counts a 29 February that it did not have. */
export function dateOf(serial: number, is1904: boolean): string | undefined {
	const days = Math.floor(serial);
	if (!Number.isFinite(serial) || days < 0 || days > 2_958_465) return undefined;
	const start = is1904 ? Date.UTC(1904, 0, 1) : Date.UTC(1899, 11, days < 60 ? 31 : 30);
	const seconds = Math.round((serial - days) * 86_400);
	const text = new Date(start + days * DAY + seconds * 1_000).toISOString();
	return seconds ? `${text.slice(0, 10)} ${text.slice(11, seconds % 60 ? 19 : 16)}` : text.slice(0, 10);
}
function timeOf(serial: number): string {
	const seconds = Math.round(serial * 86_400);
	const two = (number: number) => String(number).padStart(2, '0');
	const [h, m, s] = [Math.floor(seconds / 3_600), Math.floor(seconds / 60) % 60, seconds % 60];
	return `${two(h)}:${two(m)}${s ? `:${two(s)}` : ''}`;
}

/** A number as it was meant: a file keeps the nearest binary one, with up to 17 digits. */
const plainNumber = (value: number): string => {
	const text = String(Number(value.toPrecision(15)));
	return /e/.test(text) ? value.toLocaleString('en', { useGrouping: false, maximumFractionDigits: 20 }) : text;
};

function numberText(text: string, shown: Shown, is1904: boolean): string {
	const value = Number(text);
	if (text.trim() === '' || !Number.isFinite(value)) return text;
	if (shown === 'percent') return `${plainNumber(value * 100)} %`;
	if (shown === 'time' && value >= 0 && value < 1) return timeOf(value);
	if (shown !== 'number') return dateOf(value, is1904) ?? plainNumber(value);
	return plainNumber(value);
}

/** Row and column from 0 of an address such as B12 (§18.18.7). */
function placeOf(address: string): { r: number; c: number } | undefined {
	const [, letters, digits] = /^([A-Z]{1,3})(\d{1,7})$/.exec(address) ?? [];
	if (!letters) return undefined;
	const c = [...letters].reduce((sum, letter) => sum * 26 + letter.charCodeAt(0) - 64, 0) - 1;
	return { r: Number(digits) - 1, c };
}

interface Book {
	readonly strings: readonly string[];
	readonly shown: readonly Shown[];
	readonly is1904: boolean;
}

function readSheet(xml: string, name: string, { strings, shown, is1904 }: Book): Pick<Sheet, 'rows' | 'remarks'> {
	const rows: string[][] = [];
	let [r, c] = [-1, -1];
	let [type, style] = ['n', 0];
	let [value, inline] = ['', ''];
	let reading: 'v' | 't' | 'f' | undefined;
	let [hasFormula, hasValue] = [false, false];
	let [formulas, unworked, errors, merged] = [0, 0, 0, 0];
	walk(xml, name, {
		open: (tag, attributes) => {
			if (tag === 'row') {
				r = attributes.r === undefined ? r + 1 : Number(attributes.r) - 1;
				c = -1;
			} else if (tag === 'c') {
				const place = attributes.r === undefined ? undefined : placeOf(attributes.r);
				c = place?.c ?? c + 1;
				if (place) r = place.r;
				[type, style] = [attributes.t ?? 'n', Number(attributes.s ?? 0)];
				[value, inline, hasFormula, hasValue] = ['', '', false, false];
			} else if (tag === 'v' || tag === 't' || tag === 'f') {
				reading = tag;
				if (tag === 'f') hasFormula = true;
				if (tag === 'v') hasValue = true;
			} else if (tag === 'mergeCell') merged++;
		},
		text: (text) => {
			if (reading === 'v') value += text;
			else if (reading === 't') inline += text;
		},
		close: (tag) => {
			if (tag === reading) reading = undefined;
			if (tag !== 'c') return;
			if (hasFormula) formulas++;
			if (hasFormula && !hasValue) unworked++;
			if (type === 'e') errors++;
			const text =
				type === 's'
					? (strings[Number(value)] ?? '')
					: type === 'inlineStr'
						? inline
						: type === 'str'
							? value
							: type === 'b'
								? value.trim() === '1'
									? 'TRUE'
									: 'FALSE'
								: type === 'e'
									? ''
									: type === 'd'
										? value.replace('T', ' ').replace(/ 00:00:00(\.0+)?$/, '')
										: numberText(value, shown[style] ?? 'number', is1904);
			// Cells that say nothing make a sheet a million rows long.
			if (!text.trim() || r < 0) return;
			if (r >= BUDGET.rows || c >= BUDGET.columns)
				throw new InputError(
					'too-large',
					`The sheet “${name}” has something in row ${(r + 1).toLocaleString('en')}, column ${c + 1}; up to ${BUDGET.rows.toLocaleString('en')} rows and ${BUDGET.columns.toLocaleString('en')} columns are taken.`,
					name
				);
			(rows[r] ??= [])[c] = text;
		}
	});
	const remarks = [
		...(formulas
			? [
					`${plural(formulas, 'cell is', 'cells are')} worked out there: what they showed when the file was saved is taken.`
				]
			: []),
		...(unworked
			? [`${plural(unworked, 'formula')} had not been worked out, and ${unworked === 1 ? 'says' : 'say'} nothing.`]
			: []),
		...(errors
			? [`${plural(errors, 'cell shows', 'cells show')} an error there, and ${errors === 1 ? 'is' : 'are'} empty here.`]
			: []),
		...(merged ? [`Joined cells say something in their first cell only.`] : [])
	];
	return { rows: evened(rows, name), remarks };
}

/** Reads the sheets of an XLSX workbook (ECMA-376 Part 1, §18), as they were when it was saved. */
export async function readXlsx(bytes: Uint8Array<ArrayBuffer>): Promise<Sheet[]> {
	const archive = await Package.open(bytes, 'an XLSX workbook');
	const book = await archive.text('xl/workbook.xml');
	if (book === undefined)
		throw new InputError(
			'not-a-workbook',
			'This is no XLSX workbook: it holds no “xl/workbook.xml”.',
			'xl/workbook.xml'
		);
	const targets = new Map<string, string>();
	walk((await archive.text('xl/_rels/workbook.xml.rels')) ?? '<none/>', 'xl/_rels/workbook.xml.rels', {
		open: (name, { Id, Target }) => {
			if (name === 'Relationship' && Id && Target) targets.set(Id, Target);
		}
	});
	let is1904 = false;
	const found: { name: string; isHidden: boolean; part: string | undefined }[] = [];
	walk(book, 'xl/workbook.xml', {
		open: (name, attributes) => {
			if (name === 'workbookPr') is1904 = /^(1|true|on)$/.test(attributes.date1904 ?? '');
			if (name !== 'sheet') return;
			const id = Object.entries(attributes).find(([key]) => local(key) === 'id' && key.includes(':'))?.[1];
			const target = targets.get(id ?? '');
			const part = target && (target.startsWith('/') ? target.slice(1) : `xl/${target}`);
			found.push({ name: attributes.name ?? 'sheet', isHidden: (attributes.state ?? 'visible') !== 'visible', part });
		}
	});
	const context: Book = {
		strings: sharedStrings(await archive.text('xl/sharedStrings.xml')),
		shown: shownByStyle(await archive.text('xl/styles.xml')),
		is1904
	};
	const sheets: Sheet[] = [];
	for (const { name, isHidden, part } of found) {
		// Sheets of charts have no rows.
		const xml = part?.includes('worksheets/') ? await archive.text(part) : undefined;
		if (xml !== undefined) sheets.push({ name, isHidden, ...readSheet(xml, name, context) });
	}
	return sheets;
}
