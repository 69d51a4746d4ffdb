import { fitViewBox, invert, parseViewBox, type Matrix } from '../../core/layout/matrix.ts';
import type { XmlNode } from '../package/xml.ts';

/** What a drawing's unit stands for on the ground, in millimetres. */
export const UNITS = { mm: 1, cm: 10, m: 1_000, in: 25.4, ft: 304.8 } as const;
export type SheetUnit = keyof typeof UNITS;

/** What a person says of a sheet where its file does not, or says otherwise. */
export interface SheetAnswer {
	/** The scale's denominator. */
	readonly scale?: number;
	/** What one unit of the drawing is on the ground. */
	readonly unit?: SheetUnit;
}

/** A sheet of paper with a drawing on it. Lengths are millimetres on paper. */
export interface Sheet {
	readonly width: number;
	readonly height: number;
	/** The scale's denominator: 50 for 1:50. */
	readonly scale: number;
	/** From the units inside the root element to millimetres from the sheet's top left corner, and back. */
	readonly toPaper: Matrix;
	readonly toUnits: Matrix;
	/** Whether the file says how large the sheet is, and at which scale it is drawn; else both are guesses to be asked about. */
	readonly saysSize: boolean;
	readonly saysScale: boolean;
	readonly remarks: readonly string[];
}

const PX = 25.4 / 96;
const PER_UNIT: Readonly<Record<string, number>> = {
	mm: 1,
	cm: 10,
	in: 25.4,
	pt: 25.4 / 72,
	pc: 25.4 / 6,
	q: 0.25,
	px: PX,
	'': PX
};

/** A length as SVG writes it: its millimetres, and whether its unit is one of paper. */
function paperLength(text: string | undefined): { mm: number; isPaper: boolean } | undefined {
	const found = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
	const unit = found?.[2]!.toLowerCase() ?? '';
	const per = PER_UNIT[unit];
	const mm = found && per !== undefined ? Number(found[1]) * per : 0;
	return mm > 0 && Number.isFinite(mm) ? { mm, isPaper: unit !== '' && unit !== 'px' } : undefined;
}

/** "1:50", "1 : 50", "50" → 50. */
export function parseScale(text: string | undefined): number | undefined {
	const found = /^\s*(?:(\d+(?:\.\d+)?)\s*[:/]\s*)?(\d+(?:\.\d+)?)\s*$/.exec(text ?? '');
	if (!found) return undefined;
	const scale = Number(found[2]) / Number(found[1] ?? 1);
	return scale > 0 && Number.isFinite(scale) ? scale : undefined;
}

/** A sheet larger than this, in millimetres, is no sheet. */
const LARGEST = 100_000;

/** Reads how large a drawing's sheet is and at which scale it is drawn, by its root element and what a person says. */
export function readSheet(root: XmlNode, answer: SheetAnswer = {}): Sheet {
	const remarks: string[] = [];
	const viewBoxText = root.attribute('viewBox');
	const box = parseViewBox(viewBoxText);
	if (viewBoxText !== undefined && !box)
		remarks.push(`Its viewBox “${viewBoxText}” has no area or is not four numbers, so it says nothing.`);
	let width = paperLength(root.attribute('width'));
	let height = paperLength(root.attribute('height'));
	const ratio = box ? box.width / box.height : 1;
	if (width && !height) height = { mm: width.mm / ratio, isPaper: width.isPaper };
	if (height && !width) width = { mm: height.mm * ratio, isPaper: height.isPaper };
	const isPaper = !!width && !!height && width.isPaper && height.isPaper;
	const saidScale = parseScale(root.attribute('data-scale'));
	const saidUnit = root.attribute('data-unit');
	const unit = answer.unit ?? (saidUnit && saidUnit in UNITS ? (saidUnit as SheetUnit) : undefined);
	const scale = answer.scale ?? saidScale ?? 1;

	/** Millimetres of paper for one unit inside the root, across and down. */
	let toPaper: Matrix;
	let size: { width: number; height: number };
	const scaled = (millimetres: number) => {
		const area = box ?? { x: 0, y: 0, width: (width?.mm ?? 210) / PX, height: (height?.mm ?? 297) / PX };
		size = { width: area.width * millimetres, height: area.height * millimetres };
		toPaper = [millimetres, 0, 0, millimetres, -area.x * millimetres, -area.y * millimetres];
	};
	if (unit && (answer.unit || !isPaper)) scaled(UNITS[unit] / scale);
	else {
		size = { width: width?.mm ?? (box ? box.width * PX : 210), height: height?.mm ?? (box ? box.height * PX : 297) };
		toPaper = box
			? fitViewBox(box, size.width, size.height, root.attribute('preserveAspectRatio'))
			: [PX, 0, 0, PX, 0, 0];
		// Another scale than the file's: the ground stays, the paper shrinks or grows.
		if (answer.scale && saidScale && answer.scale !== saidScale) {
			const factor = saidScale / answer.scale;
			size = { width: size.width * factor, height: size.height * factor };
			toPaper = toPaper.map((value) => value * factor) as unknown as Matrix;
		}
	}
	const saysSize = isPaper || unit !== undefined;
	if (!saysSize)
		remarks.push(
			'The file does not say how large its sheet is on paper; it is taken for 96 units to the inch. Say its unit and scale.'
		);
	if (size!.width > LARGEST || size!.height > LARGEST || size!.width < 1 || size!.height < 1)
		remarks.push(
			`At this scale the sheet is ${Math.round(size!.width).toLocaleString('en')} × ${Math.round(size!.height).toLocaleString('en')} mm, which is hardly meant. Look at its unit and scale.`
		);
	return {
		...size!,
		scale,
		toPaper: toPaper!,
		toUnits: invert(toPaper!) ?? [1, 0, 0, 1, 0, 0],
		saysSize,
		saysScale: answer.scale !== undefined || saidScale !== undefined,
		remarks
	};
}
