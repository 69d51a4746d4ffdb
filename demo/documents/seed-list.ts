import { writeRows } from '../../src/lib/formats/csv/parse.ts';

const FIRST = [
	'Pale',
	'Marsh',
	'Dwarf',
	'Early',
	'Night',
	'Silver',
	'Tall',
	'Rock',
	'Winter',
	'Spotted',
	'Creeping',
	'Royal'
];
const PLANT = ['fern', 'bellflower', 'sedge', 'primrose', 'lily', 'thrift', 'campion', 'mallow', 'iris', 'saxifrage'];
const PLACES = ['Lily court', 'Fern grotto', 'Alpine bench', 'Dry house', 'Path garden', 'Pond edge'];

/** The garden's seed exchange list: 1,200 rows, semicolons between them as its spreadsheet writes them. */
export function seedList(): Uint8Array<ArrayBuffer> {
	const rows = [['Lot', 'Seed', 'Bed', 'Collected', 'Packets', 'Weight g', 'Price €']];
	for (let i = 0; i < 1_199; i++) {
		const name = `${FIRST[i % 12]} ${PLANT[Math.floor(i / 12) % 10]}${i < 120 ? '' : ` no. ${Math.floor(i / 120) + 1}`}`;
		const day = new Date(Date.UTC(2031, 5, 1 + ((i * 7) % 120))).toISOString().slice(0, 10);
		const packets = 3 + ((i * 17) % 41);
		rows.push([
			`TX-${String(4_000 + i)}`,
			name,
			PLACES[(i * 5) % 6]!,
			day,
			String(packets),
			(0.4 + ((i * 13) % 90) / 10).toFixed(1),
			(1.2 + ((i * 11) % 45) / 10).toFixed(2)
		]);
	}
	return new TextEncoder().encode(writeRows(rows, ';'));
}
