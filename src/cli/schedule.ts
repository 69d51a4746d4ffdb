import { plural } from '../lib/core/words.ts';
import { basename } from 'node:path';
import { FIRST_HOUSE } from '../lib/core/house.ts';
import { InputError } from '../lib/core/errors.ts';
import { MM } from '../lib/core/layout/plotted.ts';
import type { RowChange } from '../lib/core/schedule/difference.ts';
import type { ScheduleDefinition } from '../lib/core/schedule/definition.ts';
import { CORNERS, freeId, roomFor, type Corner, type PlacedTable } from '../lib/core/schedule/placed.ts';
import { checkDefinition, checkPlaced } from '../lib/core/schedule/validate.ts';
import { checkStyle } from '../lib/core/style/validate.ts';
import type { Style } from '../lib/core/style/types.ts';
import { parseLength } from '../lib/core/units.ts';
import { prepare } from '../lib/formats/job.ts';
import { bareName, openDocument } from '../lib/formats/index.ts';
import { sheetFacts, titleOf, withEdits, type SvgDocument } from '../lib/formats/svg/read.ts';
import { dressedAs, drawOn, writeSvg } from '../lib/formats/svg/write.ts';
import { plottedFacts } from '../lib/workbench/plotted.ts';
import { answered, changesOf, rowsNow } from '../lib/workbench/schedules.ts';
import { onlyFile, readBytes, readJson, readStyle, required, writeWhole } from './files.ts';
import type { Arguments, ExitCode } from './command.ts';

const USAGE = 'heptarch schedule DRAWING.svg --spec SPEC.json [--style STYLE.json] --out OUT.svg [--json]';

/** Where a new table goes; lengths as texts, such as 12mm. */
interface Place {
	readonly x?: string;
	readonly y?: string;
	readonly corner?: Corner;
	readonly reads?: 'down' | 'up';
	/** Height of capitals. */
	readonly textHeight?: string;
}
interface Spec {
	readonly definition: ScheduleDefinition;
	readonly place: Place;
	readonly style: Style | undefined;
}

/** A schedule's definition, with `place` and `style` beside it where the file says them. */
function specFrom(value: unknown): Spec {
	if (typeof value !== 'object' || value === null || Array.isArray(value))
		throw new InputError('schedule', 'A schedule’s specification is a JSON object.');
	const { place = {}, style, ...definition } = value as { place?: Place; style?: unknown };
	if (place.corner !== undefined && !CORNERS.includes(place.corner))
		throw new InputError('schedule', `“corner” is one of ${CORNERS.join(', ')}.`, '/place/corner');
	if (place.reads !== undefined && place.reads !== 'down' && place.reads !== 'up')
		throw new InputError('schedule', '“reads” is down or up.', '/place/reads');
	return {
		definition: checkDefinition(definition),
		place,
		style: style === undefined ? undefined : checkStyle(style)
	};
}

const millimetres = (text: string) => parseLength(text) / MM;

/** A table of its own, where the specification says, else at the top right inside the frame. */
function newTable(document: SvgDocument, definition: ScheduleDefinition, place: Place): Omit<PlacedTable, 'rows'> {
	const room = roomFor(document.found.frames, document.sheet);
	return {
		id: freeId(document.placed),
		source: { from: 'objects', definition },
		at: {
			x: place.x !== undefined ? millimetres(place.x) : room.x2,
			y: place.y !== undefined ? millimetres(place.y) : room.y1
		},
		corner: place.corner ?? (place.x !== undefined ? 'top-start' : 'top-end'),
		reads: place.reads ?? 'down',
		...(place.textHeight !== undefined && { textHeight: millimetres(place.textHeight) })
	};
}

/** Makes a schedule in a drawing, or reads the one of the same title again. */
export async function scheduleCommand(args: Arguments): Promise<ExitCode> {
	const file = onlyFile(args, USAGE);
	const out = required(args, 'out', USAGE);
	const spec = specFrom(await readJson(required(args, 'spec', USAGE)));
	const named = typeof args.values.style === 'string' ? await readStyle(args.values.style) : spec.style;
	const document = await openDocument(await readBytes(file), basename(file));
	if (document.kind !== 'svg') throw new InputError('not-a-drawing', `“${file}” is no SVG drawing.`, file);

	const { definition, place } = spec;
	const known = document.placed.findIndex(
		(placed) => placed.source.from === 'objects' && titleOf(placed) === definition.title.trim()
	);
	const index = known < 0 ? document.placed.length : known;
	const facts = sheetFacts(document, bareName(basename(file)));
	const { objects } = document.found;
	let changes: readonly RowChange[] = [];
	let placed: PlacedTable;
	if (known < 0) {
		const table = newTable(document, definition, place);
		const rows = rowsNow({ ...table, rows: { columns: [], rows: [], problems: [] } }, objects, facts)!;
		placed = checkPlaced({ ...table, rows });
	} else {
		const before: PlacedTable = { ...document.placed[known]!, source: { from: 'objects', definition } };
		const now = rowsNow(before, objects, facts)!;
		changes = changesOf(before, now);
		placed = answered(before, {}, now, 'all').placed;
	}
	const edited = withEdits(document, {
		placed: [...document.placed.slice(0, index), placed, ...document.placed.slice(index + 1)]
	});
	const group = document.groups.find((one) => one.placed.id === placed.id);
	const style = named ?? group?.style ?? document.styles[0];
	const entry = edited.tables[index]!;
	const jobs = style ? [{ index, table: entry.table, style }] : [];
	const options = { house: FIRST_HOUSE };
	const { bytes, account } = await writeSvg(edited, jobs, options);
	await writeWhole(out, bytes);

	const [prepared] = prepare(edited, jobs, options);
	const drawn = drawOn(edited, placed, dressedAs(entry, prepared));
	const { warnings } = plottedFacts(drawn, edited);
	const differences = account.tables.flatMap((table) => table.differences);
	const of = (kind: RowChange['kind']) => changes.filter((change) => change.kind === kind);
	const findings = [...warnings.map(({ words }) => words), ...placed.rows.problems];
	if (args.values.json)
		console.log(
			JSON.stringify(
				{
					out,
					table: placed.id,
					title: titleOf(placed),
					made: known < 0,
					rows: placed.rows.rows.filter(({ role }) => role === 'body').length,
					width: drawn.width,
					height: drawn.height,
					added: of('added'),
					gone: of('gone'),
					changed: of('changed'),
					findings,
					differences,
					remarks: account.remarks
				},
				null,
				2
			)
		);
	else {
		for (const remark of account.remarks) console.log(remark);
		const size = `${drawn.width.toFixed(1)} × ${drawn.height.toFixed(1)} mm on paper`;
		console.log(
			known < 0
				? `“${titleOf(placed)}” made, ${size}, written to ${out}.`
				: `“${titleOf(placed)}” read again: ${plural(of('added').length, 'row')} added, ${of('gone').length} gone, ${plural(of('changed').length, 'cell')} changed; ${size}, written to ${out}.`
		);
		for (const change of changes)
			console.log(
				change.kind === 'changed'
					? `    ${change.words}, ${change.column}: ${change.was || '–'} → ${change.is || '–'}`
					: `    ${change.words}: ${change.kind === 'added' ? 'new' : 'gone'}`
			);
		for (const finding of findings) console.log(finding);
		for (const { r, c, what, wanted, got } of differences.slice(0, 10))
			console.log(`    row ${r}, column ${c}, ${what}: wanted ${wanted}, got ${got}`);
	}
	return findings.length || differences.length ? 1 : 0;
}
