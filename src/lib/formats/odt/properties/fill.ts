import { toHex, type Hex } from '../../../core/colour.ts';
import type { OdtCellFields } from './property.ts';

export const colour = (value: string | undefined): Hex | 'none' | undefined =>
	value === undefined ? undefined : value === 'transparent' ? 'none' : toHex(value);

export const FILL: OdtCellFields<'fill'> = {
	fill: {
		element: 'table-cell',
		owns: /^fo:background-color$/,
		read: ({ cell, row, table }) =>
			[cell, row, table]
				.map((from) => colour(from.get('fo:background-color')))
				.find((fill) => fill !== undefined && fill !== 'none') ?? 'none',
		attributes: (fill) => ({ 'fo:background-color': fill === 'none' ? 'transparent' : fill.toLowerCase() })
	}
};
