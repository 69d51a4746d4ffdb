/** The parts of the census, in the order in which they are read. */
export const CENSUS_VIEWS = [
	{ view: 'share', words: 'In house styles' },
	{ view: 'looks', words: 'Looks' },
	{ view: 'settings', words: 'Settings that vary' },
	{ view: 'findings', words: 'Findings' }
] as const;
export type CensusView = (typeof CENSUS_VIEWS)[number]['view'];

/** The part that an address asks for; the first where it asks for none. */
export const censusView = (url: URL): CensusView =>
	CENSUS_VIEWS.find(({ view }) => view === url.searchParams.get('view'))?.view ?? 'share';
