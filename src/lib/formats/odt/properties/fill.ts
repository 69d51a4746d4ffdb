import { toHex, type Hex } from '../../../core/colour.ts';
import type { OdtCellFields } from './property.ts';

export const colour = (value: string | undefined): Hex | 'none' | undefined =>
	value === undefined ? undefined : value === 'transparent' ? 'none' : toHex(value);

export const FILL: OdtCellFields<'fill'> = {
	fill: {
		element: 'table-cell',
		owns: /^fo:background-color$/,
		read: ({ cell, row, table, behind }) =>
			[behind, ...[cell, row, table].map((from) => from.get('fo:background-color'))]
				.map(colour)
				.find((fill) => fill !== undefined && fill !== 'none') ?? 'none',
		attributes: (fill) => ({ 'fo:background-color': fill === 'none' ? 'transparent' : fill.toLowerCase() })
	}
};
