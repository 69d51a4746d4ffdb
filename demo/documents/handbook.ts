import { buildDocument, single, type TableSpec } from './build.ts';

const rota: TableSpec = {
	caption: 'Table 1: Watering rota',
	widths: [3200, 3200, 3200, 3200, 3200],
	borders: 'all',
	rows: [
		['House', 'Monday', 'Wednesday', 'Friday', 'Sunday'],
		['Lily court', 'early', 'early', 'early', 'late'],
		['Fern grotto', 'late', 'early', 'late', 'early'],
		['Alpine bench', 'none', 'late', 'none', 'late']
	],
	hand: (r, c) => ({ ...(r === 0 && { bold: true, fill: 'CFE2F3' }), ...(c > 0 && { align: 'center' as const }) })
};

const tools: TableSpec = {
	caption: 'Table 2: Tools on loan',
	widths: [2200, 5200, 2400, 3000, 3000],
	rows: [
		['Code', 'Tool', 'Number', 'Each, €', 'Worth, €'],
		['T-014', 'Dibber, ash', '12', '8.50', '102.00'],
		['T-015', 'Hand fork', '18', '14.20', '255.60'],
		['T-022', 'Watering can, 9 L', '9', '21.00', '189.00'],
		['T-031', 'Leaf rake', '7', '17.90', '125.30'],
		['Total', '', '46', '', '671.90']
	],
	hand: (r, c) => ({
		borders: { bottom: single(r === 0 || r === 4 ? 8 : 2, '444444'), top: single(r === 0 ? 8 : 2, '444444') },
		...(r === 0 && { italic: true }),
		...(c > 1 && { align: 'right' as const })
	})
};

const firstAid: TableSpec = {
	caption: 'Table 3: Where things are',
	widths: [5200, 10400],
	borders: 'outer',
	rows: [
		['Thing', 'Place'],
		['First-aid box', 'Potting shed, behind the door'],
		['Main water tap', 'Under the green lid at the lily court'],
		['Spare keys', 'Gatehouse, second drawer']
	],
	hand: (_r, c) => (c === 0 ? { bold: true } : {})
};

/** The volunteers' handbook: its default paragraph style sets font, size and ink, which would overrule a table style's. */
export const handbook = (): Promise<Uint8Array<ArrayBuffer>> =>
	buildDocument({
		title: 'Volunteers’ handbook',
		font: 'Crimson Pro',
		size: 24,
		ink: '4A4A4A',
		inParagraphStyle: true,
		content: [
			'Welcome to Thornmere. This handbook says where things are, who waters what, and whom to ask.',
			{ heading: 'Every week' },
			rota,
			{ heading: 'What you may borrow' },
			'Sign for a tool in the book at the gatehouse, and bring it back clean.',
			tools,
			{ heading: 'If something happens' },
			firstAid
		]
	});
