import type { TypeRole } from './style/types.ts';

/** What a house lends to its styles: inks and type roles that a style names and does not define itself. */
export interface House {
	readonly inks: Readonly<Record<string, string>>;
	readonly typeRoles: Readonly<Record<string, TypeRole>>;
}

export const NO_HOUSE: House = { inks: {}, typeRoles: {} };

/** The inks and type roles that a new house begins with, and that the command line lends to styles that define none. */
export const FIRST_HOUSE: House = {
	inks: {
		loam: '#2B2233',
		fern: '#2F5D50',
		moss: '#6B8F3D',
		mist: '#E8EFEC',
		bark: '#7C5A3A',
		clay: '#B45F3C',
		rust: '#9F1239',
		marigold: '#B7791F',
		dusk: '#24324F',
		plum: '#6D2E5B',
		stone: '#6B6172',
		paper: '#FFFFFF'
	},
	typeRoles: {
		figures: { family: 'Source Sans 3', size: '9.5pt', weight: 400 },
		reading: { family: 'Source Serif 4', size: '10pt', weight: 400 },
		label: { family: 'IBM Plex Sans', size: '9pt', weight: 400 },
		plan: { family: 'Libre Franklin', size: '8.5pt', weight: 400 },
		heading: { family: 'Source Sans 3', size: '9.5pt', weight: 700 }
	}
};

/** Preferred names for colours: the inks of the house that have exactly that colour. */
export const inkNames = (house: Pick<House, 'inks'>): ReadonlyMap<string, string> =>
	new Map(
		Object.entries(house.inks)
			.map(([name, hex]) => [hex.toUpperCase(), name] as const)
			.reverse()
	);
