/** The longest name that is kept, in characters; file systems take 255 bytes. */
const LONGEST = 120;
/** What no name shows: control characters, halves of surrogate pairs, line ends, and what turns the direction of text round. */
// eslint-disable-next-line no-control-regex
const UNSEEN = /[\u0000-\u001F\u007F-\u009F\p{Cs}\u2028\u2029\u200E\u200F\u202A-\u202E\u2066-\u2069\uFEFF]/gu;

/** A name that fits a file system, with its ending kept. */
function fitted(name: string): string {
	const clean = name.replace(UNSEEN, '').replace(/^[\s.]+|[\s.]+$/g, '');
	const letters = [...clean];
	if (letters.length <= LONGEST) return clean;
	const ending = /\.[A-Za-z\d]{1,10}$/.exec(clean)?.[0] ?? '';
	return (
		letters
			.slice(0, LONGEST - ending.length)
			.join('')
			.trimEnd() + ending
	);
}

/** The name of a file that comes in: of a path only its end, nothing unseen, not too long; `otherwise` where nothing is left. */
export const takenName = (given: string | null, otherwise: string): string =>
	fitted((given ?? '').split(/[\\/]/).at(-1)!) || otherwise;

/** A name for a file that goes out, also in a zip: no path, whatever a document is called. */
export const givenName = (name: string): string => fitted(name.replace(/[\\/]/g, '-')) || 'file';
