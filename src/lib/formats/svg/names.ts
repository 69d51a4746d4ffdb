import { HEPTARCH_NAMESPACE } from '../docx/names.ts';

export const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';

/** Namespaces of drawings, with the prefix we call them by. */
export const NAMESPACES: ReadonlyMap<string, string> = new Map([
	[SVG_NAMESPACE, 'svg'],
	['http://www.w3.org/1999/xlink', 'xlink'],
	[HEPTARCH_NAMESPACE, 'hept']
]);

/** Class of the groups that hold our tables. */
export const TABLE_CLASS = 'heptarch-table';
