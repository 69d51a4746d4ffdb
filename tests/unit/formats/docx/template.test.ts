import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { appearanceOf } from '../../../../src/lib/core/cascade/look.ts';
import { resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { canonicalStyle } from '../../../../src/lib/core/style/canonical.ts';
import { selfContained } from '../../../../src/lib/core/style/export.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import type { Style } from '../../../../src/lib/core/style/types.ts';
import { checkStyle } from '../../../../src/lib/core/style/validate.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { bareDocument } from '../../../../src/lib/formats/found.ts';
import { makeDocx } from '../../../../src/lib/formats/docx/make.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { tableStylesOf } from '../../../../src/lib/formats/docx/template.ts';
import { compare } from '../../../../src/lib/formats/read-back.ts';
import { SAYABLE, writeDocx } from '../../../../src/lib/formats/docx/write.ts';
import { docx, LEDGER, tbl } from '../documents.ts';

const grid = createGrid([
	['Bed', 'Plants', 'Cost'],
	['Fern', '24', '120.00'],
	['Moss', '18', '44.50'],
	['Total', '42', '164.50']
]);

/** A template as an office would have it: a base with bands and corners, one built on it, another on nothing. */
const TEMPLATE_STYLES = `
<w:style w:type="table" w:default="1" w:styleId="TableNormal"><w:name w:val="Normal Table"/><w:tblPr><w:tblCellMar><w:left w:w="108" w:type="dxa"/><w:right w:w="108" w:type="dxa"/></w:tblCellMar></w:tblPr></w:style>
<w:style w:type="table" w:customStyle="1" w:styleId="Office"><w:name w:val="Office base"/><w:basedOn w:val="TableNormal"/><w:rPr><w:sz w:val="19"/><w:color w:val="2B2233"/></w:rPr>
<w:tblPr><w:tblStyleRowBandSize w:val="2"/><w:tblBorders><w:top w:val="single" w:sz="8" w:color="2F5D50"/><w:bottom w:val="double" w:sz="4" w:color="2F5D50"/><w:insideH w:val="nil"/></w:tblBorders></w:tblPr>
<w:tblStylePr w:type="firstRow"><w:pPr><w:jc w:val="center"/></w:pPr><w:rPr><w:b/><w:caps/></w:rPr><w:tcPr><w:shd w:val="clear" w:color="auto" w:fill="2F5D50"/></w:tcPr></w:tblStylePr>
<w:tblStylePr w:type="firstCol"><w:rPr><w:i/><w:color w:val="9F1239"/></w:rPr><w:tcPr><w:shd w:val="clear" w:color="auto" w:fill="E8EFEC"/></w:tcPr></w:tblStylePr>
<w:tblStylePr w:type="band2Horz"><w:tcPr><w:shd w:val="clear" w:color="auto" w:fill="F0F0F0"/><w:tcMar><w:top w:w="40" w:type="dxa"/></w:tcMar></w:tcPr></w:tblStylePr>
<w:tblStylePr w:type="swCell"><w:rPr><w:u w:val="double"/></w:rPr></w:tblStylePr></w:style>
<w:style w:type="table" w:customStyle="1" w:styleId="Costs"><w:name w:val="Office costs"/><w:basedOn w:val="Office"/>
<w:tblStylePr w:type="lastRow"><w:rPr><w:b/></w:rPr><w:tcPr><w:tcBorders><w:top w:val="dashed" w:sz="6" w:color="auto"/></w:tcBorders><w:vAlign w:val="bottom"/></w:tcPr></w:tblStylePr></w:style>
<w:style w:type="table" w:customStyle="1" w:styleId="Plain"><w:name w:val="Plain list"/><w:tblPr><w:tblBorders><w:insideH w:val="dotted" w:sz="4" w:color="6B6172"/></w:tblBorders></w:tblPr></w:style>`;

const named = (hex: string) => Object.entries(FIRST_HOUSE.inks).find(([, value]) => value === hex)?.[0] ?? hex;

/** Writes styles into a new template and reads its table styles back, what Heptarch carries along left aside. */
async function outAndIn(styles: readonly Style[]): Promise<Style[]> {
	const document = await readDocx(
		await makeDocx(bareDocument(styles.map(({ name }) => ({ heading: name, text: '', grid }))))
	);
	const find = (name: string) => styles.find((style) => style.name === name);
	const { bytes } = await writeDocx(
		document,
		styles.map((style, index) => ({ index, table: document.tables[index]!.table, style })),
		{ house: FIRST_HOUSE, find, readBack: false }
	);
	return tableStylesOf(await readDocx(bytes), named);
}
const byName = (styles: readonly Style[]) =>
	new Map(styles.map((style) => [style.name, canonicalStyle(checkStyle(style))]));

describe('a DOCX template', () => {
	it('gives its table styles: chains, conditional parts, margins, bands, inks of the house', async () => {
		const found = byName(
			tableStylesOf(await readDocx(await docx({ body: tbl(LEDGER), styles: TEMPLATE_STYLES })), named)
		);
		assert.deepEqual([...found.keys()], ['Office base', 'Office costs', 'Plain list']);
		const base = found.get('Office base')!;
		assert.equal(base.basedOn, null);
		assert.deepEqual(base.bands, { rows: { sizes: [2, 2] } });
		assert.deepEqual(base.parts.ground, {
			text: { size: '9.5pt', ink: 'loam' },
			margin: { end: '5.4pt', start: '5.4pt' },
			lines: {
				top: { pattern: 'solid', weight: '1pt', ink: 'fern' },
				bottom: { pattern: 'double', weight: '1.5pt', ink: 'fern' },
				betweenRows: { pattern: 'none' }
			}
		});
		assert.deepEqual(base.parts.header, {
			fill: { ink: 'fern' },
			text: { weight: 700, case: 'upper' },
			align: { h: 'middle' }
		});
		assert.deepEqual(base.parts['rowBand:2'], { fill: { ink: '#F0F0F0' }, margin: { top: '2pt' } });
		// The standard lets the first column win over the first row; ours has the corner say so.
		assert.deepEqual(base.parts['corner:header-first'], { fill: { ink: 'mist' } });
		assert.deepEqual(base.parts['corner:total-first'], { text: { underline: 'double' } });
		const costs = found.get('Office costs')!;
		assert.equal(costs.basedOn, 'Office base');
		assert.deepEqual(Object.keys(costs.parts), ['total']);
		assert.deepEqual(costs.parts.total, {
			text: { weight: 700 },
			align: { v: 'bottom' },
			lines: { top: { pattern: 'dashed', weight: '0.75pt', ink: '#000000' } }
		});
		assert.deepEqual(found.get('Plain list')!.parts.ground!.lines!.betweenRows, {
			pattern: 'dotted',
			weight: '0.5pt',
			ink: 'stone'
		});
	});
	it('in → out → in gives the same styles', async () => {
		const first = tableStylesOf(await readDocx(await docx({ body: tbl(LEDGER), styles: TEMPLATE_STYLES })), named);
		const again = await outAndIn(first);
		assert.deepEqual([...byName(again)], [...byName(first)]);
	});
	it('of house styles reads back, by the standard’s own rules, as they look', async () => {
		const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
		const styles = DEMO_STYLES.map((style) => selfContained(style, FIRST_HOUSE, find));
		const document = await readDocx(
			await makeDocx(bareDocument(styles.map(({ name }) => ({ heading: name, text: 'x', grid }))))
		);
		const { table } = recognisedTable(grid);
		const jobs = styles.map((style, index) => ({ index, table, style }));
		const { bytes, account } = await writeDocx(document, jobs, { house: FIRST_HOUSE });
		for (const { differences } of account.tables) assert.deepEqual(differences, []);
		const back = await readDocx(bytes);
		for (const { index, style } of jobs) {
			const wanted = appearanceOf(resolve(table, flatten(style), FIRST_HOUSE));
			assert.deepEqual(compare(table, wanted, back.tables[index]!.appearance, SAYABLE), [], style.name);
		}
		const names = tableStylesOf(back).map(({ name }) => name);
		for (const { name } of DEMO_STYLES) assert.ok(names.includes(name), name);
	});
	it('with chains that come back to themselves is read all the same', async () => {
		const circle =
			'<w:style w:type="table" w:styleId="A"><w:name w:val="A"/><w:basedOn w:val="B"/></w:style><w:style w:type="table" w:styleId="B"><w:name w:val="B"/><w:basedOn w:val="A"/></w:style>';
		const found = tableStylesOf(await readDocx(await docx({ body: tbl(LEDGER), styles: circle })));
		assert.deepEqual(found.map(({ name }) => name).sort(), ['A', 'B']);
	});
});
