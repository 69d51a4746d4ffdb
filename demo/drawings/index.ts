import { FIRST_HOUSE } from '../../src/lib/core/house.ts';
import type { ScheduleDefinition } from '../../src/lib/core/schedule/definition.ts';
import { noRevisions, withRevision, type PlacedTable } from '../../src/lib/core/schedule/placed.ts';
import { makeRows } from '../../src/lib/core/schedule/rows.ts';
import { readSvg, sheetFacts, withEdits } from '../../src/lib/formats/svg/read.ts';
import { writeSvg } from '../../src/lib/formats/svg/write.ts';
import { DEMO_STYLES } from '../styles/index.ts';
import { fernBedBefore, fernBedNow } from './fern-bed.ts';
import { pathLighting } from './path-lighting.ts';

const bytesOf = (text: string) => new TextEncoder().encode(text);

const PLANTING: ScheduleDefinition = {
	format: 'heptarch-schedule',
	version: 1,
	title: 'Planting schedule',
	rows: 'merged',
	columns: [
		{ from: 'attribute', attribute: 'key', name: 'Key', kind: 'code' },
		{ from: 'attribute', attribute: 'species', name: 'Plant' },
		{ from: 'attribute', attribute: 'pot', name: 'Pot', kind: 'quantity' },
		{ from: 'attribute', attribute: 'spacing', name: 'Spacing', kind: 'quantity' },
		{ from: 'attribute', attribute: 'supplier', name: 'From' },
		{ from: 'count', name: 'No.' }
	],
	sort: [{ by: 'Plant', order: 'rising' }],
	total: true
};

const PLANT_LEGEND: ScheduleDefinition = {
	format: 'heptarch-schedule',
	version: 1,
	title: 'Legend',
	rows: 'merged',
	columns: [
		{ from: 'symbol', name: 'Symbol' },
		{ from: 'attribute', attribute: 'common', name: 'Plant' },
		{ from: 'attribute', attribute: 'key', name: 'Key', kind: 'code' }
	],
	sort: [{ by: 'Plant', order: 'rising' }]
};

const LAMPS: ScheduleDefinition = {
	format: 'heptarch-schedule',
	version: 1,
	title: 'Lamp schedule',
	rows: 'merged',
	columns: [
		{ from: 'attribute', attribute: 'circuit', name: 'Circuit', hidden: true },
		{ from: 'symbol', name: 'Symbol' },
		{ from: 'attribute', attribute: 'type', name: 'Lamp' },
		{ from: 'attribute', attribute: 'mount', name: 'Fixed' },
		{ from: 'attribute', attribute: 'height', name: 'Height', kind: 'quantity' },
		{ from: 'count', name: 'No.' },
		{ from: 'sum', attribute: 'watt', name: 'Load', kind: 'quantity' }
	],
	groupBy: 'Circuit',
	subtotals: true,
	total: true
};

type Wanted = Omit<PlacedTable, 'rows'> & { readonly rows?: PlacedTable['rows'] };

/** A drawing with tables on it, in the house's style for plans. */
async function withTables(drawing: string, tables: readonly Wanted[]): Promise<string> {
	const document = readSvg(bytesOf(drawing));
	const placed = tables.map((table): PlacedTable => ({
		...table,
		rows:
			table.rows ??
			(table.source.from === 'objects'
				? makeRows(table.source.definition, document.found.objects, sheetFacts(document))
				: noRevisions('Revisions'))
	}));
	const edited = withEdits(document, { placed });
	const style = DEMO_STYLES.find(({ name }) => name === 'Plan Schedule')!;
	const jobs = edited.tables.map(({ index, table }) => ({ index, table, style }));
	const { bytes } = await writeSvg(edited, jobs, { house: FIRST_HOUSE });
	return new TextDecoder().decode(bytes);
}

const revisions = [
	{ number: 'A', date: '2031-02-01', what: 'First issue', who: 'LT' },
	{ number: 'B', date: '2031-03-18', what: 'Bed edge moved 0.4 m east', who: 'RO' },
	{ number: 'C', date: '2031-05-02', what: 'Polypody in, maidenhair out', who: 'RO' }
].reduce(withRevision, noRevisions('Revisions'));

/** The tables of a drawing put into another state of it, as when somebody goes on drawing after the schedule was made. */
function moved(tables: string, into: string): string {
	const { groups, source } = readSvg(bytesOf(tables));
	const markup = groups.map(({ node }) => source.text.slice(node.start, node.end)).join('\n');
	return into.replace(/<\/svg>\s*$/, `${markup}\n</svg>\n`);
}

/** Made once: the same each time. */
function once(make: () => Promise<Uint8Array<ArrayBuffer>>): () => Promise<Uint8Array<ArrayBuffer>> {
	let made: Promise<Uint8Array<ArrayBuffer>> | undefined;
	return () => (made ??= make());
}

/** The fern bed's planting plan: its schedule is a little behind what is drawn. */
export const fernBed = once(async () => {
	const before = await withTables(fernBedBefore(), [
		{
			id: 'planting-schedule',
			source: { from: 'objects', definition: PLANTING },
			at: { x: 407, y: 14 },
			corner: 'top-end',
			reads: 'down'
		},
		{
			id: 'plant-legend',
			source: { from: 'objects', definition: PLANT_LEGEND },
			at: { x: 407, y: 119 },
			corner: 'top-end',
			reads: 'down'
		},
		{
			id: 'revisions',
			source: { from: 'revisions' },
			rows: revisions,
			at: { x: 284, y: 258 },
			corner: 'bottom-start',
			reads: 'up'
		}
	]);
	return bytesOf(moved(before, fernBedNow()));
});

/** The path lighting with a lamp schedule by circuits. */
export const lighting = once(async () =>
	bytesOf(
		await withTables(pathLighting(), [
			{
				id: 'lamp-schedule',
				source: { from: 'objects', definition: LAMPS },
				at: { x: 407, y: 14 },
				corner: 'top-end',
				reads: 'down'
			}
		])
	)
);
