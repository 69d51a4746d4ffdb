import { plural } from '../../words.ts';

/** What kind of table it is; `data` is what any other is taken for. */
export const PURPOSES = ['data', 'list', 'matrix', 'calendar', 'form', 'layout'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** What each is for, in the words that people read. */
export const PURPOSE_WORDS: Readonly<Record<Purpose, string>> = {
	data: 'columns of one kind each, under a header',
	list: 'one or two columns of text',
	matrix: 'headings above and beside, one kind of value between them',
	calendar: 'weekdays and the days of a month',
	form: 'to be filled in, or filled in and signed',
	layout: 'only sets things side by side, or frames them'
};

/** “a form”, “data”. */
export const purposeName = (purpose: Purpose): string =>
	purpose === 'data' || purpose === 'layout' ? purpose : `a ${purpose}`;

/** Tables of these purposes are left as they are where all tables get a style, unless somebody asks for them. */
export const isLeftOut = (purpose: Purpose): boolean => purpose === 'form' || purpose === 'layout';

/** “2 forms and 1 layout table”: those of these purposes that are left as they are; undefined where none is. */
export function leftOutWords(purposes: readonly Purpose[]): string | undefined {
	const count = (purpose: Purpose) => purposes.filter((one) => one === purpose).length;
	const [forms, layouts] = [count('form'), count('layout')];
	const said = [...(forms ? [plural(forms, 'form')] : []), ...(layouts ? [plural(layouts, 'layout table')] : [])];
	return said.length ? said.join(' and ') : undefined;
}
