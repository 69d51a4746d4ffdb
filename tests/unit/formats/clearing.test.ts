import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { seasonReportHtml, seasonReportOdt } from '../../../demo/documents/twins.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { matchWidths } from '../../../src/lib/core/layout/match.ts';
import { ONLY_TEXT } from '../../../src/lib/core/style/bare.ts';
import { ASPECTS } from '../../../src/lib/core/style/types.ts';
import type { Column } from '../../../src/lib/core/table/grid.ts';
import { parseLength, type Emu } from '../../../src/lib/core/units.ts';
import type { StyleJob } from '../../../src/lib/formats/job.ts';
import { openDocument, writeStyled, type AnyDocument } from '../../../src/lib/formats/index.ts';

const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const options = { house: FIRST_HOUSE, find };
const ledger = find('Season Ledger')!;
const cleared = (document: AnyDocument): StyleJob[] =>
	document.tables.map(({ index, table }) => ({
		index,
		style: ONLY_TEXT,
		table: { ...table, carry: ASPECTS, partsOff: [], touches: [] }
	}));
const textsOf = (document: AnyDocument) => document.tables.map(({ table }) => table.cells.map(({ text }) => text));
const emphasised = (document: AnyDocument) =>
	document.tables.flatMap(({ content }) =>
		content
			.flat()
			.flatMap((piece) =>
				'runs' in piece
					? piece.runs.filter((run) => run.weight !== undefined || run.italic !== undefined || run.ink !== undefined)
					: []
			)
	);
const sources = {
	docx: seasonReport,
	odt: seasonReportOdt,
	html: seasonReportHtml
} as const;

for (const [kind, make] of Object.entries(sources))
	describe(`a table in ${kind}`, () => {
		it('is cleared down to nothing but its text, also of a style it wore', async () => {
			const first = await openDocument(await make(), `a.${kind}`);
			const dressed = await writeStyled(
				first,
				first.tables.map(({ index, table }) => ({ index, table, style: ledger })),
				options
			);
			for (const bytes of [await make(), dressed.bytes]) {
				const document = await openDocument(bytes, `a.${kind}`);
				const { bytes: out, account } = await writeStyled(document, cleared(document), options);
				const back = await openDocument(out, `a.${kind}`);
				assert.deepEqual(textsOf(back), textsOf(first));
				assert.deepEqual(
					account.tables.flatMap(({ differences }) => differences),
					[]
				);
				assert.deepEqual(back.styles, []);
				for (const { appearance, wornName, carried, place } of back.tables) {
					assert.equal(carried, null);
					assert.notEqual(wornName, ledger.name);
					if (place.where === 'nested') continue;
					for (const line of appearance.lines) assert.ok(!line || line.pattern === 'none', JSON.stringify(line));
					for (const { fill, weight, h } of appearance.cellLook.length ? appearance.looks : []) {
						assert.ok(fill === undefined || fill === 'none');
						assert.ok(weight === undefined || weight === 400);
						assert.ok(h === undefined || h === 'start');
					}
				}
				assert.equal(
					new TextDecoder('latin1').decode(out).includes('only text'),
					false,
					'no style of that name travels'
				);
			}
		});
		it('keeps the emphasis inside its text, or drops it when asked', async () => {
			const document = await openDocument(await make(), `a.${kind}`);
			const before = emphasised(document).map(({ text }) => text.trim());
			assert.ok(before.includes('three frost-damaged'), before.join('; '));
			for (const dropsEmphasis of [false, true]) {
				const jobs = document.tables.map(({ index, table }) => ({ index, table, style: ledger, dropsEmphasis }));
				const { bytes, account } = await writeStyled(document, jobs, options);
				const back = await openDocument(bytes, `a.${kind}`);
				assert.deepEqual(textsOf(back), textsOf(document));
				const after = emphasised(back).map(({ text }) => text.trim());
				if (dropsEmphasis) assert.deepEqual(after, []);
				else assert.ok(after.includes('three frost-damaged'));
				assert.deepEqual(
					account.tables.flatMap(({ differences }) => differences),
					[]
				);
			}
		});
		it('takes the widths that it is given', async () => {
			const document = await openDocument(await make(), `a.${kind}`);
			const [first, second] = document.tables;
			const widths = first!.table.columnInfo.map((_, c) => parseLength(`${20 + 6 * c}mm`));
			const jobs = [{ index: 0, table: first!.table, style: ledger, widths }];
			const back = await openDocument((await writeStyled(document, jobs, options)).bytes, `a.${kind}`);
			// HTML says widths in tenths of a pixel.
			back.tables[0]!.widths.forEach((width, c) =>
				assert.ok(Math.abs(width - widths[c]!) < 1_000, `${width} ${widths[c]}`)
			);
			assert.equal(back.tables[0]!.widths.length, widths.length);
			assert.deepEqual(back.tables[1]!.widths, second!.widths);
		});
	});

describe('matching widths', () => {
	const columns = (...list: [name: string, kind: Column['kind']][]): Column[] =>
		list.map(([name, kind]) => ({ name, kind }));
	const emu = (...list: number[]) => list as Emu[];
	it('goes by place, else by name, else by kind, else leaves what was', () => {
		const model = {
			columns: columns(['Bed', 'text'], ['Cost', 'money'], ['Share', 'percent']),
			widths: emu(30, 20, 10)
		};
		assert.deepEqual(
			matchWidths(model, { columns: columns(['A', 'text'], ['B', 'text'], ['C', 'text']), widths: [] }),
			[30, 20, 10]
		);
		assert.deepEqual(
			matchWidths(model, { columns: columns(['Share', 'percent'], ['Paid', 'money']), widths: emu(1, 2) }),
			[10, 20]
		);
		assert.deepEqual(
			matchWidths(model, {
				columns: columns(['Note', 'mixed'], ['Cost', 'money'], ['Tax', 'money'], ['Bed', 'text']),
				widths: emu(5, 6, 7, 8)
			}),
			[5, 20, 7, 30]
		);
		assert.deepEqual(matchWidths({ ...model, widths: [] }, model), []);
	});
});
