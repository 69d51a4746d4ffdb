import { nearestBorder, type Line } from '../../../core/properties/line.ts';
import { emu, type Emu } from '../../../core/units.ts';
import { border, readLine } from './lines.ts';
import { pt, toEmu, type OdtCellField, type OdtCellFields } from './property.ts';

const margin = (side: 'top' | 'right' | 'bottom' | 'left'): OdtCellField<Emu> => ({
	element: 'table-cell',
	owns: new RegExp(`^fo:padding(-${side})?$`),
	read: ({ cell }) => toEmu(cell.get(`fo:padding-${side}`)) ?? emu(0),
	attributes: (length) => ({ [`fo:padding-${side}`]: pt(length) })
});

const diagonal = (name: string): OdtCellField<Line | null> => ({
	element: 'table-cell',
	owns: new RegExp(`^${name}(-widths)?$`),
	nearest: (line) => nearestBorder(line) ?? undefined,
	read: ({ cell }) => readLine(cell.get(name)) ?? undefined,
	attributes: (line) => (line ? { [name]: border(line) } : {})
});

const ANGLE = { 0: '0', 90: '270', 270: '90' } as const;

/** `style:table-cell-properties` (ODF 1.3 Part 3 §17.18), without fill and borders. */
export const CELL: OdtCellFields<
	'v' | 'rotate' | 'marginTop' | 'marginEnd' | 'marginBottom' | 'marginStart' | 'diagonalDown' | 'diagonalUp'
> = {
	v: {
		element: 'table-cell',
		owns: /^style:vertical-align$/,
		read({ cell }) {
			const vertical = cell.get('style:vertical-align');
			return vertical === 'middle' || vertical === 'bottom' ? vertical : 'top';
		},
		attributes: (v) => ({ 'style:vertical-align': v })
	},
	rotate: {
		element: 'table-cell',
		owns: /^(style:rotation-angle|style:writing-mode)$/,
		read({ cell }) {
			const angle = Number(cell.get('style:rotation-angle') ?? 0);
			return angle === 270 || cell.get('style:writing-mode') === 'tb-rl' ? 90 : angle === 90 ? 270 : 0;
		},
		attributes: (rotate) => ({ 'style:rotation-angle': ANGLE[rotate] })
	},
	marginTop: margin('top'),
	marginEnd: margin('right'),
	marginBottom: margin('bottom'),
	marginStart: margin('left'),
	diagonalDown: diagonal('style:diagonal-tl-br'),
	diagonalUp: diagonal('style:diagonal-bl-tr')
};
