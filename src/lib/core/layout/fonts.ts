/** The document families that ship with the application. */
export const SHIPPED = [
	'Source Sans 3',
	'Source Serif 4',
	'IBM Plex Sans',
	'IBM Plex Mono',
	'Libre Franklin',
	'Crimson Pro',
	'Atkinson Hyperlegible'
] as const;

const SHIPPED_NAMES = new Map(SHIPPED.map((family) => [family.toLowerCase(), family as string]));
const MONO = /mono|courier|consol|code|typewriter/i;
const SERIF =
	/serif(?!.*sans)|roman|times|georgia|garamond|cambria|book|palatino|century|caslon|baskerville|didot|bodoni|minion|antiqua/i;
const NARROW_SERIF = /garamond|crimson|times/i;

/** The family that shows where `family` is asked for: itself if it ships, else the nearest in kind. */
export function standIn(family: string): string {
	const shipped = SHIPPED_NAMES.get(family.toLowerCase());
	if (shipped) return shipped;
	if (MONO.test(family)) return 'IBM Plex Mono';
	if (/sans/i.test(family)) return 'Source Sans 3';
	if (NARROW_SERIF.test(family)) return 'Crimson Pro';
	if (SERIF.test(family)) return 'Source Serif 4';
	return 'Source Sans 3';
}
