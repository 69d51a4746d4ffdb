import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Hex } from '../../../../src/lib/core/colour.ts';
import type { Line, Look } from '../../../../src/lib/core/cascade/look.ts';
import { LINE_PATTERNS } from '../../../../src/lib/core/style/types.ts';
import { fromPoints, fromTwips, type Emu } from '../../../../src/lib/core/units.ts';
import { rewriteProperties, writeProperties } from '../../../../src/lib/formats/docx/containers.ts';
import { cellLayerOf, paragraphLayerOf, sayableEdge, textLayerOf } from '../../../../src/lib/formats/docx/layers.ts';
import { NAMESPACES } from '../../../../src/lib/formats/docx/names.ts';
import { readBorders, shownBorder, writeBorders } from '../../../../src/lib/formats/docx/properties/borders.ts';
import {
	readCell,
	writeMargins,
	writeRotation,
	writeVertical
} from '../../../../src/lib/formats/docx/properties/cell.ts';
import { lostLeaves, sayableLook } from '../../../../src/lib/formats/docx/properties/fields.ts';
import { readParagraph, spacing, writeAlignment } from '../../../../src/lib/formats/docx/properties/paragraph.ts';
import { writeShading } from '../../../../src/lib/formats/docx/properties/shading.ts';
import { readText, RUN_ORDER, writeText } from '../../../../src/lib/formats/docx/properties/text.ts';
import {
	readTableLook,
	regionKey,
	regionsAt,
	writeTableLook,
	type TableLook
} from '../../../../src/lib/formats/docx/regions.ts';
import { NO_THEME } from '../../../../src/lib/formats/docx/theme.ts';
import { parseXml, type XmlNode } from '../../../../src/lib/formats/package/xml.ts';

const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
const parse = (markup: string) => parseXml(`<w:x ${W}>${markup}</w:x>`, 'x', { namespaces: NAMESPACES });
const element = (markup: string): XmlNode => parse(markup).root.children[0]!;

const anyInk = fc
	.integer({ min: 0, max: 0xffffff })
	.map((n): Hex => `#${n.toString(16).padStart(6, '0').toUpperCase()}`);
const anyLine: fc.Arbitrary<Line> = fc.record({
	pattern: fc.constantFrom(...LINE_PATTERNS.filter((pattern) => pattern !== 'none')),
	weight: fc.integer({ min: 1, max: 80 }).map((eighths) => fromPoints(eighths / 8)),
	ink: anyInk
});
const twips = fc.integer({ min: 0, max: 4000 }).map(fromTwips);

describe('what is written is read back: each property of WordprocessingML', () => {
	it('text', () => {
		fc.assert(
			fc.property(
				fc.record(
					{
						family: fc.constantFrom('Source Sans 3', 'A & "B"'),
						size: fc.integer({ min: 2, max: 200 }).map((half) => fromPoints(half / 2)),
						weight: fc.constantFrom(400, 700),
						italic: fc.boolean(),
						underline: fc.constantFrom('none' as const, 'single' as const, 'double' as const),
						case: fc.constantFrom('none' as const, 'upper' as const, 'small-caps' as const),
						tracking: fc.integer({ min: -200, max: 200 }).map(fromTwips),
						ink: anyInk
					},
					{ requiredKeys: [] }
				),
				(look) => {
					const layer = textLayerOf(look as Look);
					const markup = writeProperties('w:rPr', RUN_ORDER, writeText(layer));
					assert.deepEqual(markup === '' ? {} : readText(element(markup), NO_THEME), layer);
				}
			)
		);
	});
	it('paragraphs', () => {
		for (const h of ['start', 'middle', 'end', 'justify', 'decimal'] as const) {
			const markup = `<w:pPr>${[...writeAlignment(h, 700).values()].join('')}${spacing(undefined, { lineHeight: 1.5 })}</w:pPr>`;
			assert.deepEqual(readParagraph(element(markup), NO_THEME), paragraphLayerOf({ h, lineHeight: 1.5 }));
		}
		const kept = spacing(element('<w:spacing w:before="120" w:line="400" w:lineRule="exact"/>'), { lineHeight: 1.25 });
		assert.equal(kept, '<w:spacing w:before="120" w:line="300" w:lineRule="auto"/>', 'what else it says stays');
		assert.equal(spacing(undefined, {}), '');
	});
	it('borders, as thick as the format can say', () => {
		fc.assert(
			fc.property(anyLine, fc.boolean(), (line, strict) => {
				const sayable = sayableEdge(line)!;
				const borders = { top: sayable, start: sayable, bottom: null, insideH: sayable, diagonalUp: sayable };
				assert.deepEqual(readBorders(element(writeBorders('w:tcBorders', borders, strict)), NO_THEME), borders);
				assert.deepEqual(sayableEdge(sayable), sayable, 'what can be said is said as it is');
			})
		);
	});
	it('cells', () => {
		fc.assert(
			fc.property(
				fc.record({
					fill: fc.oneof(anyInk, fc.constant('none' as const)),
					v: fc.constantFrom('top' as const, 'middle' as const, 'bottom' as const),
					rotate: fc.constantFrom(0 as const, 90 as const, 270 as const),
					marginTop: twips,
					marginEnd: twips,
					marginBottom: twips,
					marginStart: twips
				}),
				fc.boolean(),
				(look, strict) => {
					const layer = cellLayerOf(look);
					const markup = `<w:tcPr>${writeShading(layer.fill!)}${writeMargins('w:tcMar', layer.margins, strict)}${writeRotation(layer.rotate!, strict)}${writeVertical(layer.v!)}</w:tcPr>`;
					assert.deepEqual(readCell(element(markup), NO_THEME), { ...layer, borders: {} });
				}
			)
		);
	});
	it('w:tblLook, by attributes and by bits', () => {
		fc.assert(
			fc.property(
				fc.record({
					firstRow: fc.boolean(),
					lastRow: fc.boolean(),
					firstColumn: fc.boolean(),
					lastColumn: fc.boolean(),
					rowBands: fc.boolean(),
					columnBands: fc.boolean()
				}),
				(any) => {
					const look = { ...any };
					const markup = writeTableLook(look);
					assert.deepEqual(readTableLook(element(markup)), look);
					assert.deepEqual(readTableLook(element(markup.replace(/ w:(first|last|no)\w+="\d"/g, ''))), look);
				}
			)
		);
		assert.equal(readTableLook(undefined).rowBands, false, 'without it nothing is conditional');
	});
});

describe('what the format can say', () => {
	it('is no less than what it says, and names what is lost', () => {
		const wanted = { weight: 600, size: (9.2 * 12_700) as Emu, case: 'lower', italic: true } as const;
		const look = sayableLook(wanted);
		const lost = lostLeaves(wanted).map(({ leaf }) => leaf);
		assert.deepEqual([look.weight, look.size, look.case, look.italic], [700, 9 * 12_700, undefined, true]);
		assert.deepEqual([...lost].sort(), ['case', 'weight']);
		assert.deepEqual(lostLeaves({ weight: 400, case: 'upper' }), []);
	});
	it('draws a line no thinner than a quarter point and no thicker than twelve', () => {
		const weight = (points: number) =>
			sayableEdge({ pattern: 'solid', weight: fromPoints(points), ink: '#000000' })!.weight / 12_700;
		assert.deepEqual([weight(0.01), weight(0.55), weight(40)], [0.25, 0.5, 12]);
		assert.equal(sayableEdge({ pattern: 'none', weight: 0 as Emu, ink: '#000000' }), null);
	});
});

describe('which of two borders shows', () => {
	const border = (pattern: Line['pattern'], points: number, ink: Hex = '#000000'): Line => ({
		pattern,
		weight: fromPoints(points),
		ink
	});
	it('one that is there over one that is not', () => {
		assert.equal(shownBorder(null, undefined), null);
		const only = border('solid', 1);
		assert.equal(shownBorder(null, only), only);
		assert.equal(shownBorder(only, undefined), only);
	});
	it('more and heavier lines, then the thicker, then the darker, then the first', () => {
		const wins = (winner: Line, loser: Line) => {
			assert.equal(shownBorder(winner, loser), winner);
			assert.equal(shownBorder(loser, winner), winner);
		};
		wins(border('double', 0.75), border('solid', 6));
		wins(border('triple', 0.75), border('double', 6));
		wins(border('solid', 2), border('solid', 1));
		wins(border('solid', 1, '#101010'), border('solid', 1, '#202020'));
		const [a, b] = [border('solid', 1), border('solid', 1)];
		assert.equal(shownBorder(a, b), a);
	});
});

describe('regions', () => {
	const anyLook: fc.Arbitrary<TableLook> = fc.record({
		firstRow: fc.boolean(),
		lastRow: fc.boolean(),
		firstColumn: fc.boolean(),
		lastColumn: fc.boolean(),
		rowBands: fc.boolean(),
		columnBands: fc.boolean()
	});
	/** What of a cell's regions its look depends on: which they are, and at which rims of their blocks it stands. */
	const telling = (...args: Parameters<typeof regionsAt>) =>
		regionsAt(...args)
			.map(
				({ region, block }) =>
					`${region} ${args[0].r === block.top}${args[0].r === block.bottom}${args[0].c <= block.start}${args[0].c + args[0].cols - 1 >= block.end}`
			)
			.join();
	it('cells with the same key have the same regions at the same rims', () => {
		fc.assert(
			fc.property(
				anyLook,
				fc.integer({ min: 1, max: 9 }),
				fc.integer({ min: 1, max: 7 }),
				fc.integer({ min: 1, max: 3 }),
				fc.integer({ min: 1, max: 3 }),
				(look, rows, columns, rowSize, columnSize) => {
					const seen = new Map<number, string>();
					for (let r = 0; r < rows; r++)
						for (let c = 0; c < columns; c++)
							for (let cols = 1; cols <= Math.min(3, columns - c); cols++) {
								const place = { r, c, cols };
								const key = regionKey(place, rows, columns, look, rowSize, columnSize);
								const regions = telling(place, rows, columns, look, rowSize, columnSize);
								assert.equal(seen.get(key) ?? regions, regions);
								seen.set(key, regions);
							}
				}
			),
			{ numRuns: 300 }
		);
	});
	it('bands count from after the header, in stripes of their size', () => {
		const look: TableLook = {
			firstRow: true,
			lastRow: false,
			firstColumn: false,
			lastColumn: false,
			rowBands: true,
			columnBands: false
		};
		const band = (r: number) => regionsAt({ r, c: 0, cols: 1 }, 7, 2, look, 2, 1).at(-1)!.region;
		assert.deepEqual([0, 1, 2, 3, 4, 5].map(band), [
			'firstRow',
			'band1Horz',
			'band1Horz',
			'band2Horz',
			'band2Horz',
			'band1Horz'
		]);
	});
});

describe('property elements', () => {
	const rewrite = (markup: string, remove: (name: string) => boolean, set: Record<string, string>) =>
		rewriteProperties(markup, parse(''), 'w:rPr', RUN_ORDER, ({ name }) => remove(name), new Map(Object.entries(set)));
	const none = () => false;
	it('are left byte for byte where nothing changes', () => {
		const odd = `<w:rPr ><!-- x --><w:lang w:val='en'/>\n<w:b /></w:rPr>`;
		assert.equal(rewrite(odd, none, {}), odd);
	});
	it('take new children in the order of the schema, and keep the others', () => {
		assert.equal(
			rewrite('<w:rPr><w:rStyle w:val="x"/><w:lang w:val="en"/></w:rPr>', none, {
				'w:sz': '<w:sz w:val="18"/>',
				'w:b': '<w:b/>'
			}),
			'<w:rPr><w:rStyle w:val="x"/><w:b/><w:sz w:val="18"/><w:lang w:val="en"/></w:rPr>'
		);
		assert.equal(rewrite('<w:rPr/>', none, { 'w:b': '<w:b/>' }), '<w:rPr><w:b/></w:rPr>');
		assert.equal(rewrite('', none, { 'w:b': '<w:b/>' }), '<w:rPr><w:b/></w:rPr>');
	});
	it('replace what they set, and go when nothing is left', () => {
		assert.equal(
			rewrite('<w:rPr><w:b/><w:sz w:val="20"/></w:rPr>', (name) => name === 'w:b', { 'w:sz': '<w:sz w:val="18"/>' }),
			'<w:rPr><w:sz w:val="18"/></w:rPr>'
		);
		assert.equal(
			rewrite('<w:rPr><w:b/></w:rPr>', () => true, {}),
			''
		);
		assert.equal(rewrite('', none, {}), '');
	});
	it('keep tracked changes of properties', () => {
		const tracked = '<w:rPr><w:b/><w:rPrChange w:id="1"><w:rPr><w:i/></w:rPr></w:rPrChange></w:rPr>';
		assert.equal(
			rewrite(tracked, (name) => name === 'w:b', {}),
			'<w:rPr><w:rPrChange w:id="1"><w:rPr><w:i/></w:rPr></w:rPrChange></w:rPr>'
		);
	});
});
