import { SaxesParser } from 'saxes';
import type { ScheduleDefinition } from '../src/lib/core/schedule/definition.ts';
import { differences } from '../src/lib/core/schedule/difference.ts';
import { makeRows } from '../src/lib/core/schedule/rows.ts';
import { readSvg, sheetFacts, withEdits } from '../src/lib/formats/svg/read.ts';
import { shownText } from '../src/lib/formats/svg/shown.ts';
import { largeDrawing } from './large-drawing.ts';
import { median, timed } from './measure.ts';

const MERGED: ScheduleDefinition = {
	format: 'heptarch-schedule',
	version: 1,
	title: 'All plants',
	rows: 'merged',
	columns: [
		{ from: 'attribute', attribute: 'species', name: 'Plant' },
		{ from: 'attribute', attribute: 'pot', name: 'Pot' },
		{ from: 'attribute', attribute: 'supplier', name: 'From' },
		{ from: 'count', name: 'No.' },
		{ from: 'sum', attribute: 'pot', name: 'Litres' }
	],
	sort: [{ by: 'Plant', order: 'rising' }],
	total: true
};

/** Reading a drawing of 50,000 objects against a plain parse by the same library, its schedule, and reading it again. */
export async function benchDrawing(): Promise<void> {
	const bytes = largeDrawing();
	const text = new TextDecoder().decode(bytes);
	const plain = median(
		await timed(
			() => {
				const parser = new SaxesParser({ xmlns: false, position: true });
				parser.on('opentag', () => undefined);
				parser.write(text).close();
			},
			5,
			1
		)
	);
	const read = median(await timed(() => readSvg(bytes), 5, 1));
	const document = readSvg(bytes);
	const shown = median(await timed(() => shownText(document), 3, 1));
	const facts = sheetFacts(document);
	const rows = median(await timed(() => makeRows(MERGED, document.found.objects, facts), 7, 2));
	const before = makeRows(MERGED, document.found.objects, facts);
	// A tenth of the plants come from elsewhere now.
	const changed = Object.fromEntries(
		document.found.objects.filter((_, i) => i % 10 === 0).map(({ key }) => [key, { supplier: 'Nursery 99' }])
	);
	const newer = withEdits(document, { attributes: changed }).found.objects;
	let found = 0;
	const again = median(
		await timed(
			() => {
				found = differences(before, makeRows(MERGED, newer, facts)).length;
			},
			5,
			1
		)
	);
	const say = (what: string, value: number, bound: number) =>
		console.log(
			`${value <= bound ? 'within ' : 'OVER   '} ${what}: ${value.toFixed(0)} ms (at most ${bound}), ${(value / plain).toFixed(2)} of a plain parse`
		);
	console.log(
		`        drawing of ${document.found.objects.length.toLocaleString('en')} objects (${(bytes.length / 2 ** 20).toFixed(1)} MB): plain parse ${plain.toFixed(0)} ms; read with places and attributes ${read.toFixed(0)} ms, ${(read / plain).toFixed(2)} of it; made ready to be shown ${shown.toFixed(0)} ms`
	);
	say(`its schedule, ${before.rows.length} rows`, rows, 500);
	say(`read again, ${found} differences`, again, 1_000);
}
