import type { TypeRole } from './style/types.ts';

/** What a house lends to its styles: inks and type roles that a style names and does not define itself. */
export interface House {
	readonly inks: Readonly<Record<string, string>>;
	readonly typeRoles: Readonly<Record<string, TypeRole>>;
	/** Names that styles, their steps and tables may still use. */
	readonly former?: FormerNames;
}

/** What names stood for that the house has no more: the name of what it is called now, or else what it was. */
export interface FormerNames {
	readonly inks: Readonly<Record<string, string>>;
	readonly typeRoles: Readonly<Record<string, string | TypeRole>>;
}

/** Inks and type roles that are called otherwise, or that others replaced: from what, to what. */
export interface Renamed {
	readonly inks?: Readonly<Record<string, string>>;
	readonly typeRoles?: Readonly<Record<string, string>>;
}

/** What a record says of a name itself, what every object has by birth left out. */
const own = <T>(record: Readonly<Record<string, T>>, name: string): T | undefined =>
	Object.hasOwn(record, name) ? record[name] : undefined;

/** The colour that a name stands for in a house: of an ink that it has, or of one that it had under that name. */
export function inkOf({ inks, former }: House, name: string): string | undefined {
	const was = former && own(former.inks, name);
	return own(inks, name) ?? (was === undefined ? undefined : (own(inks, was) ?? was));
}

/** The same for type roles. */
export function typeRoleOf({ typeRoles, former }: House, name: string): TypeRole | undefined {
	const was = former && own(former.typeRoles, name);
	return own(typeRoles, name) ?? (typeof was === 'string' ? own(typeRoles, was) : was);
}

/** What an ink or type role of that name is called now; the name itself where nothing was renamed. */
export const nowCalled = <T>(
	has: Readonly<Record<string, T>>,
	former: Readonly<Record<string, string | T>> | undefined,
	name: string
): string => {
	const was = own(has, name) === undefined && former ? own(former, name) : undefined;
	return typeof was === 'string' && own(has, was) !== undefined ? was : name;
};

/**
 * Former names after the house changed from `before` to `after`: whatever has gone stands for what is `instead` of it, or
 * for what it was; a name that is there again is no former one.
 */
export function formerAfter(before: House, after: Pick<House, 'inks' | 'typeRoles'>, instead: Renamed): FormerNames {
	const follow = <T>(
		had: Readonly<Record<string, T>>,
		has: Readonly<Record<string, T>>,
		was: Readonly<Record<string, string | T>>,
		names: Readonly<Record<string, string>>
	): Record<string, string | T> => {
		const stands = (name: string): string | T | undefined => {
			const next = own(names, name) ?? name;
			return own(has, next) === undefined ? own(had, name) : next;
		};
		const entries: [string, string | T][] = [];
		for (const [name, meant] of Object.entries(was))
			entries.push([name, typeof meant === 'string' ? (stands(meant) ?? meant) : meant]);
		for (const name of Object.keys(had)) entries.push([name, stands(name)!]);
		return Object.fromEntries(entries.filter(([name]) => own(has, name) === undefined));
	};
	const { inks = {}, typeRoles = {} } = instead;
	return {
		inks: follow(before.inks, after.inks, before.former?.inks ?? {}, inks),
		typeRoles: follow(before.typeRoles, after.typeRoles, before.former?.typeRoles ?? {}, typeRoles)
	};
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
