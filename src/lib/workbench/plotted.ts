import { LEAST_HEIGHT, MM, plottedHeight } from '../core/layout/plotted.ts';
import { found, type Finding } from '../core/findings/finding.ts';
import { behind, covers, outside, small } from '../core/findings/plotted.ts';
import { overlaps } from '../core/layout/matrix.ts';
import type { Faces } from '../core/layout/faces.ts';
import { roleFamily } from '../core/roles/index.ts';
import type { DrawnTable } from '../formats/svg/draw.ts';
import { sheetFacts, type SvgDocument } from '../formats/svg/read.ts';
import { drawOn } from '../formats/svg/write.ts';
import { changesOf, rowsNow } from './schedules.ts';
import { shippedFaces } from '../formats/pdf/fonts.ts';

/** How a table comes out on paper; lengths are millimetres. */
export interface PlottedFacts {
	/** Height of capitals in body rows and in the header. */
	readonly body: number | null;
	readonly header: number | null;
	/** Widths of the lines that it has, thinnest first. */
	readonly lines: readonly number[];
	readonly warnings: readonly Finding[];
}

const tidy = (value: number) => Math.round(value * 100) / 100;

/** How a drawn table comes out on paper, and what is wrong with that. */
export function plottedFacts(
	{ laid, appearance, x, y, width, height }: DrawnTable,
	document: SvgDocument,
	faces: Faces = shippedFaces
): PlottedFacts {
	const { table } = laid.input;
	const heights = new Map<string, number>();
	let least = Infinity;
	table.cells.forEach(({ r, text }, i) => {
		if (!text.trim()) return;
		const look = appearance.looks[appearance.cellLook[i]!]!;
		const plots = plottedHeight(look, faces);
		least = Math.min(least, plots);
		const family = roleFamily(table.roles[r]!);
		if (!heights.has(family)) heights.set(family, plots);
	});
	const weights = new Set(
		[...appearance.across, ...appearance.down].flatMap((edge) => {
			const line = edge < 0 ? null : appearance.lines[edge];
			return line && line.pattern !== 'none' ? [tidy(line.weight / MM)] : [];
		})
	);
	const box = { x1: x, y1: y, x2: x + width, y2: y + height };
	const { sheet, found: inDrawing } = document;
	const covered = inDrawing.objects.filter(({ extent }) => overlaps(extent, box)).length;
	const warnings: Finding[] = [];
	// Heights are told in hundredths of a millimetre.
	if (least < LEAST_HEIGHT - 0.005) warnings.push(found(small, { plots: tidy(least), least: LEAST_HEIGHT }));
	if (box.x1 < -0.01 || box.y1 < -0.01 || box.x2 > sheet.width + 0.01 || box.y2 > sheet.height + 0.01)
		warnings.push(found(outside, {}));
	if (covered) warnings.push(found(covers, { objects: covered }));
	return {
		body: heights.has('body') ? tidy(heights.get('body')!) : null,
		header: heights.has('header') ? tidy(heights.get('header')!) : null,
		lines: [...weights].sort((a, b) => a - b),
		warnings
	};
}

/** What a person should look at in a table of a drawing as it stands in its file: how it plots, and whether it is behind. */
export function drawingFindings(document: SvgDocument, index: number): Finding[] {
	const placed = document.placed[index]!;
	const drawn = drawOn(document, placed, document.tables[index]!);
	const { source } = placed;
	// What other drawings hold is not known here.
	const isAlone = source.from === 'objects' && !source.with?.length;
	const changes = isAlone ? changesOf(placed, rowsNow(placed, document.found.objects, sheetFacts(document))).length : 0;
	return [...plottedFacts(drawn, document).warnings, ...(changes ? [found(behind, { changes })] : [])];
}
