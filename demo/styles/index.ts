import type { PartSettings, Style } from '../../src/lib/core/style/types.ts';

const style = (
	name: string,
	category: string,
	description: string,
	rest: Omit<Style, 'format' | 'version' | 'name'>
): Style => ({
	format: 'heptarch-style',
	version: 1,
	name,
	description,
	category,
	...rest
});

const noLine = { pattern: 'none' } as const;
const line = (weight: string, ink: string, pattern: 'solid' | 'double' | 'dashed' | 'dotted' = 'solid') => ({
	pattern,
	weight,
	ink
});
const margins = (rows: string, columns: string) => ({ top: rows, end: columns, bottom: rows, start: columns });
const figures = (h: 'decimal' | 'end' = 'decimal'): Record<string, PartSettings> => ({
	'columns:count': { align: { h: 'end' } },
	'columns:quantity': { align: { h } },
	'columns:money': { align: { h } },
	'columns:percent': { align: { h: 'end' } }
});

/** The styles of the demo house. Bases come before those that build on them. */
export const DEMO_STYLES: readonly Style[] = [
	style('House base', 'Foundations', 'What all tables of the garden share: type, margins, figures at the end.', {
		parts: {
			ground: {
				text: { role: 'figures', ink: 'loam' },
				align: { h: 'start', v: 'middle' },
				margin: margins('1.2mm', '2mm')
			},
			...figures('end')
		}
	}),
	style('Season Ledger', 'Reports', 'Reports with figures: fern header, banded rows, a total under a double line.', {
		basedOn: 'House base',
		bands: { rows: { sizes: [1, 1], restartAtGroups: true } },
		parts: {
			ground: { fill: { ink: 'none' }, lines: { bottom: line('1pt', 'fern'), betweenRows: noLine } },
			'rowBand:2': { fill: { ink: 'fern', tint: 0.08 } },
			'columns:quantity': { align: { h: 'decimal' } },
			'columns:money': { align: { h: 'decimal' } },
			firstColumn: { text: { weight: 600 } },
			'group:1': { text: { weight: 700, ink: 'fern' }, lines: { bottom: line('0.75pt', 'fern') } },
			subtotal: { text: { italic: true }, lines: { top: line('0.75pt', 'fern') } },
			total: { text: { weight: 700 }, lines: { top: line('2.25pt', 'fern', 'double'), bottom: line('1pt', 'fern') } },
			header: {
				fill: { ink: 'fern' },
				text: { weight: 700, ink: 'paper' },
				lines: { betweenRows: line('0.5pt', 'mist') }
			},
			title: { text: { weight: 700, size: '12pt', ink: 'fern' }, align: { h: 'start' } },
			note: { text: { italic: true, size: '8.5pt', ink: 'stone' }, align: { h: 'start' } }
		}
	}),
	style('Quiet Lines', 'Reports', 'Three lines and nothing else, for pages that are mostly text.', {
		basedOn: 'House base',
		parts: {
			ground: {
				text: { role: 'reading' },
				lines: {
					top: line('1.25pt', 'loam'),
					bottom: line('1.25pt', 'loam'),
					betweenRows: noLine,
					betweenColumns: noLine,
					start: noLine,
					end: noLine
				}
			},
			'group:1': { text: { italic: true } },
			subtotal: { text: { italic: true } },
			total: { lines: { top: line('0.5pt', 'loam') } },
			header: { text: { weight: 700 } },
			'header:2': { lines: { bottom: line('0.5pt', 'loam') } },
			'header:1': { lines: { bottom: line('0.5pt', 'loam') } },
			title: { text: { weight: 700 }, lines: { top: noLine, bottom: line('1.25pt', 'loam') } },
			note: { text: { size: '8.5pt' }, lines: { top: line('1.25pt', 'loam'), bottom: noLine } }
		}
	}),
	style('Beacon', 'Notices', 'Rows float on the page, parted by paper-coloured lines; for walls and screens.', {
		parts: {
			ground: {
				fill: { ink: 'plum', tint: 0.07 },
				text: { family: 'Atkinson Hyperlegible', size: '10pt', ink: 'loam' },
				align: { h: 'start', v: 'middle' },
				margin: margins('1.6mm', '2.4mm'),
				lines: {
					betweenRows: line('2pt', 'paper'),
					betweenColumns: noLine,
					top: noLine,
					bottom: noLine,
					start: noLine,
					end: noLine
				}
			},
			...figures('end'),
			firstColumn: { text: { weight: 700 } },
			'group:1': { fill: { ink: 'none' }, text: { weight: 700, ink: 'plum' } },
			subtotal: { fill: { ink: 'plum', tint: 0.14 } },
			total: { fill: { ink: 'plum', tint: 0.26 }, text: { weight: 700 } },
			header: { fill: { ink: 'plum', tint: 1 }, text: { weight: 700, ink: 'paper' } },
			title: { fill: { ink: 'none' }, text: { weight: 700, size: '13pt', ink: 'plum' } },
			note: { fill: { ink: 'none' }, text: { size: '9pt' } }
		}
	}),
	style(
		'Herbarium Sheet',
		'Records',
		'Every cell in a box, as on a specimen label; for lists that are filled in by hand.',
		{
			parts: {
				ground: {
					text: { family: 'Crimson Pro', size: '10.5pt', ink: 'loam' },
					align: { h: 'start', v: 'top' },
					margin: margins('0.8mm', '1.6mm'),
					lines: {
						top: line('1.5pt', 'moss'),
						bottom: line('1.5pt', 'moss'),
						start: line('1.5pt', 'moss'),
						end: line('1.5pt', 'moss'),
						betweenRows: line('0.5pt', 'moss'),
						betweenColumns: line('0.5pt', 'moss')
					}
				},
				...figures('end'),
				firstColumn: { text: { italic: true } },
				'group:1': { text: { case: 'small-caps', weight: 700 } },
				subtotal: { text: { weight: 700 } },
				total: { text: { weight: 700 }, lines: { top: line('1.5pt', 'moss') } },
				header: {
					fill: { ink: 'moss', tint: 0.16 },
					text: { weight: 700 },
					align: { v: 'bottom' },
					lines: { bottom: line('1.5pt', 'moss') }
				},
				note: { text: { italic: true } }
			}
		}
	),
	style('Seed Packet', 'Handbooks', 'Dashed lines and warm paper; friendly, for handbooks and hand-outs.', {
		parts: {
			ground: {
				text: { family: 'Libre Franklin', size: '9.5pt', ink: 'loam' },
				align: { h: 'start', v: 'middle' },
				margin: margins('1.2mm', '2mm'),
				lines: {
					top: line('1pt', 'marigold'),
					bottom: line('1pt', 'marigold'),
					betweenRows: line('0.75pt', 'marigold', 'dotted')
				}
			},
			'rowBand:2': { fill: { ink: 'marigold', tint: 0.07 } },
			...figures('end'),
			'columns:code': { text: { family: 'IBM Plex Mono', size: '8.5pt' } },
			'group:1': { text: { weight: 700, ink: 'clay' } },
			subtotal: { text: { weight: 600 } },
			total: { text: { weight: 700 }, lines: { top: line('1pt', 'marigold', 'dashed') } },
			header: { text: { weight: 700, ink: 'bark' }, lines: { bottom: line('1pt', 'marigold', 'dashed') } }
		}
	}),
	style('North Wall', 'Notices', 'The first column leads: dark labels, light figures.', {
		parts: {
			ground: {
				text: { family: 'IBM Plex Sans', size: '9.5pt', ink: 'loam' },
				align: { h: 'start', v: 'middle' },
				margin: margins('1.1mm', '2mm'),
				lines: { bottom: line('1pt', 'dusk'), betweenRows: line('0.25pt', 'stone') }
			},
			...figures('decimal'),
			firstColumn: { fill: { ink: 'dusk' }, text: { weight: 600, ink: 'paper' } },
			'group:1': { fill: { ink: 'dusk', tint: 0.12 }, text: { weight: 700, ink: 'dusk' } },
			subtotal: { fill: { ink: 'dusk', tint: 0.08 }, text: { weight: 600, ink: 'dusk' } },
			total: { fill: { ink: 'dusk', tint: 0.18 }, text: { weight: 700, ink: 'dusk' } },
			header: {
				fill: { ink: 'dusk', tint: 0.18 },
				text: { weight: 700, ink: 'dusk' },
				lines: { bottom: line('1pt', 'dusk') }
			},
			title: { text: { weight: 700, ink: 'dusk' } }
		}
	}),
	style('Plan Schedule', 'Drawings', 'Schedules and revision tables on sheets, lettered to be read when plotted.', {
		bands: { rows: { sizes: [1, 1], restartAtGroups: true } },
		parts: {
			ground: {
				fill: { ink: 'paper' },
				text: { family: 'Libre Franklin', size: '7.5pt', ink: 'loam' },
				align: { h: 'start', v: 'middle' },
				margin: margins('0.75mm', '1.6mm'),
				lines: { bottom: line('0.35mm', 'fern'), betweenRows: noLine }
			},
			'rowBand:2': { fill: { ink: 'fern', tint: 0.09 } },
			...figures('end'),
			'columns:code': { text: { weight: 600 } },
			'group:1': { fill: { ink: 'fern', tint: 0.2 }, text: { weight: 600, ink: 'fern' } },
			subtotal: { text: { italic: true }, lines: { top: line('0.18mm', 'fern') } },
			total: {
				text: { weight: 700 },
				lines: { top: line('0.7mm', 'fern', 'double'), bottom: line('0.35mm', 'fern') }
			},
			header: { fill: { ink: 'fern', tint: 1 }, text: { weight: 600, ink: 'paper' } },
			title: {
				fill: { ink: 'none' },
				text: { weight: 700, size: '10.5pt', ink: 'loam' },
				margin: { start: '0mm', bottom: '1.2mm' },
				align: { h: 'start' },
				lines: { bottom: noLine, top: noLine }
			}
		}
	})
];
