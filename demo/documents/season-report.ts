import { buildDocument, double, single, type CellSpec, type TableSpec } from './build.ts';

const isNumber = (text: string) => /^[\s+\-−(€]*\d/.test(text);

/** Every table here was formatted by a different hand, as in a real report. */
const visitors: TableSpec = {
	caption: 'Table 1: Visitors by month',
	widths: [5000, 3000, 3000, 3000],
	style: 'GardenGrid',
	headerRows: 1,
	rows: [
		['Month', '2030', '2031', 'Change'],
		['April', '11 204', '11 870', '+5.9 %'],
		['May', '14 318', '15 002', '+4.8 %'],
		['June', '16 950', '16 344', '−3.6 %'],
		['July', '19 477', '20 815', '+6.9 %'],
		['August', '21 036', '21 902', '+4.1 %'],
		['September', '13 690', '14 127', '+3.2 %'],
		['Total', '96 675', '100 060', '+3.5 %']
	],
	hand: (_r, c) => (c > 0 ? { align: 'right' } : {})
};

const glasshouses: TableSpec = {
	caption: 'Table 2: Visitors and takings by glasshouse',
	widths: [5000, 2600, 2600, 3200, 2600],
	borders: 'all',
	rows: [
		[
			{ text: 'Glasshouse', down: 2 },
			{ text: 'Visitors', span: 2, align: 'center' },
			{ text: 'Takings', span: 2, align: 'center' }
		],
		['2030', '2031', '€', 'Change'],
		['Water house', '', '', '', ''],
		['Lily court', '18 204', '19 911', '61 370.00', '+4.1 %'],
		['Fern grotto', '9 310', '8 872', '24 118.50', '−2.9 %'],
		['Subtotal', '27 514', '28 783', '85 488.50', '+2.1 %'],
		['Dry house', '', '', '', ''],
		['Succulents', '12 077', '13 540', '38 902.00', '+6.6 %'],
		['Alpine bench', '4 410', '4 395', '9 120.75', '−0.3 %'],
		['Subtotal', '16 487', '17 935', '48 022.75', '+5.2 %'],
		['Total', '44 001', '46 718', '133 511.25', '+3.2 %']
	],
	hand: (r) => (r < 2 ? { fill: 'FFDE85', bold: true } : r === 10 ? { fill: 'FFCFCF' } : {})
};

const budget: TableSpec = {
	caption: 'Table 3: Budget against actual',
	widths: [5200, 2900, 2900, 2900, 2100],
	style: 'GardenGrid',
	rows: [
		['Heading', 'Budget, €', 'Actual, €', 'Variance, €', 'Share'],
		['Heating and light', '58 000.00', '61 204.40', '(3 204.40)', '29 %'],
		['Seed and plants', '24 500.00', '22 918.15', '1 581.85', '11 %'],
		['Glass and frames', '31 000.00', '36 412.00', '(5 412.00)', '17 %'],
		['Wages, seasonal', '87 400.00', '85 960.25', '1 439.75', '41 %'],
		['Printing and signs', '4 200.00', '3 788.00', '412.00', '2 %'],
		['Total', '205 100.00', '210 282.80', '(5 182.80)', '100 %']
	],
	hand: (r, c, text) => ({
		...(c > 0 && { align: 'right' as const }),
		...(r === 0 && { fill: '24324F', ink: 'FFFFFF', bold: true }),
		...(text.startsWith('(') && { ink: 'C00000' }),
		...(r === 6 && { bold: true, borders: { top: single(12, '24324F'), bottom: double(4, '24324F') } })
	})
};

const accessions: TableSpec = {
	caption: 'Table 5: New accessions',
	widths: [2200, 5400, 2600, 2400, 2600],
	borders: 'all',
	headerRows: 1,
	rows: [
		['Accession', 'Plant', 'Received', 'Number', 'Checked by'],
		['00417', 'Dryopteris affinis', '2031-04-12', '24', ''],
		['00418', 'Polystichum setiferum, **three frost-damaged**', '2031-04-12', '18', ''],
		['00425', 'Asplenium scolopendrium', '2031-05-03', '40', ''],
		['00431', 'Matteuccia struthiopteris', '2031-05-19', '9', ''],
		['00440', 'Osmunda regalis', '2031-06-02', '5', ''],
		['00452', 'Blechnum spicant', '2031-07-21', '28', '']
	],
	hand: (r) => (r === 0 ? { font: 'Courier New', size: 18, fill: 'D9D9D9' } : { font: 'Courier New', size: 18 })
};

const energy: TableSpec = {
	caption: 'Table 4: Energy by quarter',
	widths: [3200, 3200, 3200, 3400, 2400],
	rows: [
		['Quarter', 'Heat, MWh', 'Light, MWh', 'Cost, €', 'Share'],
		['Q1', '41.2', '6.0', '7 204.10', '38 %'],
		['Q2', '18.7', '4.1', '3 480.55', '18 %'],
		['Q3', '9.3', '3.6', '1 988.20', '11 %'],
		['Q4', '36.9', '6.4', '6 302.75', '33 %'],
		['Total', '106.1', '20.1', '18 975.90', '100 %']
	],
	hand: (r, c): Partial<CellSpec> => ({
		borders: {
			top: r === 0 ? single(12, '7C5A3A') : single(2, 'C9B8A8'),
			bottom: r === 5 ? single(12, '7C5A3A') : single(2, 'C9B8A8'),
			left: { style: 'nil', size: 0, color: 'auto' },
			right: { style: 'nil', size: 0, color: 'auto' }
		},
		font: 'Georgia',
		size: 19,
		...(r === 0 && { italic: true, ink: '7C5A3A' }),
		...(c > 0 && { align: 'center' as const }),
		...(r === 5 && { bold: true })
	})
};

const volunteers: TableSpec = {
	caption: 'Table 7: Volunteer hours',
	widths: [5400, 3000, 3000, 3400],
	borders: 'none',
	rows: [
		['Team', 'People', 'Hours', 'Hours a head'],
		['Fern bed', '12', '486', '40.5'],
		['Seed room', '8', '352', '44.0'],
		['Path lighting', '5', '118', '23.6'],
		['Tours', '21', '640', '30.5'],
		['All teams', '46', '1 596', '34.7']
	],
	hand: (r) => (r === 0 ? { bold: true } : {})
};

const SPECIES = [
	'Adiantum venustum',
	'Asplenium trichomanes',
	'Athyrium niponicum',
	'Blechnum spicant',
	'Cystopteris fragilis',
	'Dryopteris filix-mas',
	'Gymnocarpium dryopteris',
	'Matteuccia struthiopteris',
	'Onoclea sensibilis',
	'Osmunda regalis',
	'Polypodium vulgare',
	'Polystichum setiferum'
];
const BEDS = ['North bank', 'Stream edge', 'Stone steps', 'Old wall', 'Hollow'];

const plantList: TableSpec = {
	caption: 'Table 6: Ferns planted, by bed',
	widths: [1800, 5600, 3400, 1800, 2600],
	borders: 'outer',
	headerRows: 1,
	rows: [
		['No.', 'Plant', 'Bed', 'Pot', 'Number'],
		...Array.from({ length: 60 }, (_, i) => [
			String(i + 1).padStart(3, '0'),
			SPECIES[(i * 5) % SPECIES.length]!,
			BEDS[i % BEDS.length]!,
			`${1 + ((i * 7) % 5)} L`,
			String(3 + ((i * 11) % 17))
		])
	],
	hand: (r) =>
		r === 0 ? { fill: '6B8F3D', ink: 'FFFFFF', bold: true, align: 'center' } : r % 2 ? {} : { fill: 'EEF3E6' }
};

const events: TableSpec = {
	caption: 'Table 8: Events',
	widths: [3000, 5200, 7400],
	borders: 'all',
	rows: [
		[{ text: 'Events of the season', span: 3, bold: true, align: 'center', fill: 'E8D5E3' }],
		['Date', 'Event', 'Who came'],
		['12 Apr 2031', 'Opening of the alpine bench', 'Members and neighbours'],
		[
			'21 Jun 2031',
			'Midsummer evening',
			{
				text: 'By kind of ticket:',
				nested: {
					widths: [3600, 2600],
					borders: 'all',
					rows: [
						['Ticket', 'Number'],
						['Members', '214'],
						['Day visitors', '389'],
						['Total', '603']
					],
					hand: (r, c, text) => ({
						size: 16,
						...(r === 0 && { bold: true }),
						...(isNumber(text) && { align: 'right' as const })
					})
				}
			}
		],
		['6 Sep 2031', 'Seed exchange', 'Eleven gardens'],
		[{ text: 'Note: evenings are counted at the gate, tours by ticket.', span: 3, italic: true, size: 18 }]
	],
	hand: (r) => (r === 1 ? { bold: true, fill: 'F4EAF1' } : { v: 'center' })
};

const GARDEN_GRID =
	'<w:style w:type="table" w:customStyle="1" w:styleId="GardenGrid"><w:name w:val="Garden Grid"/><w:basedOn w:val="TableNormal"/><w:uiPriority w:val="59"/>' +
	'<w:tblPr><w:tblStyleRowBandSize w:val="1"/><w:tblBorders><w:top w:val="single" w:sz="8" w:space="0" w:color="2F5D50"/><w:bottom w:val="single" w:sz="8" w:space="0" w:color="2F5D50"/><w:insideH w:val="single" w:sz="4" w:space="0" w:color="A9BDB6"/></w:tblBorders></w:tblPr>' +
	'<w:tblStylePr w:type="firstRow"><w:rPr><w:b/><w:color w:val="2F5D50"/></w:rPr><w:tcPr><w:shd w:val="clear" w:color="auto" w:fill="DDE8E3"/></w:tcPr></w:tblStylePr>' +
	'<w:tblStylePr w:type="lastRow"><w:rPr><w:b/></w:rPr><w:tcPr><w:tcBorders><w:top w:val="double" w:sz="4" w:space="0" w:color="2F5D50"/></w:tcBorders></w:tcPr></w:tblStylePr>' +
	'<w:tblStylePr w:type="band2Horz"><w:tcPr><w:shd w:val="clear" w:color="auto" w:fill="F3F7F5"/></w:tcPr></w:tblStylePr></w:style>';

/** The season report: nine tables (one of them inside another), each by a different hand. */
export const seasonReport = (): Promise<Uint8Array<ArrayBuffer>> =>
	buildDocument({
		title: 'Season report 2031',
		font: 'Source Serif 4',
		size: 21,
		tableStyles: GARDEN_GRID,
		content: [
			'This report looks back on the season from April to September 2031. It was put together by six people in four offices, and its tables show it.',
			{ heading: '1 Visitors' },
			'More people came than in any year since the lily court was rebuilt. June was wet, and the only month that fell behind.',
			visitors,
			{ heading: '2 Glasshouses' },
			'Both houses drew more visitors than the year before. The fern grotto was closed for eleven days while its north pane was replaced, which shows in its figures; takings rose all the same.',
			glasshouses,
			'The dry house opened its alpine bench in April. Members came on weekdays, visitors at week ends; the shop sold more seed than in any year since it opened, and fewer plants.',
			{ heading: '3 Money' },
			'Glass was dearer than planned. The rest of the garden kept within its budget, and the overspend is met from the legacy fund.',
			budget,
			energy,
			'Heating was the largest single cost. The board paper gives it by quarter; what is shown here is the season as a whole.',
			{ heading: '4 Plants' },
			'Six accessions were entered this season. The list of ferns planted follows the bed plan from the stream upwards.',
			accessions,
			plantList,
			{ heading: '5 People' },
			'Forty-six people gave their time. Tours needed the most of it.',
			volunteers,
			events,
			'The next season opens on the first Saturday of April 2032.'
		]
	});
