import type { FlatStyle } from './inherit.ts';
import { comparePartNames, partWords } from './parts.ts';
import type { LeafValue } from './types.ts';
import { leafWords, valueWords } from './words.ts';

/** One difference between two styles, inheritance resolved. An absent side says nothing there. */
export interface Difference {
	/** A part, `rule:<name>`, or `bands`, `reading`, `inks`, `type roles`. */
	readonly place: string;
	readonly what: string;
	readonly before?: string;
	readonly after?: string;
}

type Leaves = ReadonlyMap<string, { readonly value: LeafValue }>;

function compareLeaves(place: string, before: Leaves | undefined, after: Leaves | undefined): Difference[] {
	const paths = new Set([...(before?.keys() ?? []), ...(after?.keys() ?? [])]);
	return [...paths].flatMap((path) => {
		const from = before?.get(path)?.value;
		const to = after?.get(path)?.value;
		if (from === to) return [];
		return [
			{
				place,
				what: leafWords(path),
				...(from !== undefined && { before: valueWords(path, from) }),
				...(to !== undefined && { after: valueWords(path, to) })
			}
		];
	});
}

const simple = (place: string, what: string, before: string | undefined, after: string | undefined): Difference[] =>
	before === after
		? []
		: [{ place, what, ...(before !== undefined && { before }), ...(after !== undefined && { after }) }];

/** What differs between two styles, weakest part first: settings, bands, rules, inks, type roles. */
export function compareStyles(before: FlatStyle, after: FlatStyle): Difference[] {
	const differences: Difference[] = [];
	const places = [...new Set([...before.parts.keys(), ...after.parts.keys()])].sort(comparePartNames);
	for (const place of places)
		differences.push(...compareLeaves(place, before.parts.get(place), after.parts.get(place)));
	differences.push(
		...simple('bands', 'row stripes', before.bands.rowSizes.join(' + '), after.bands.rowSizes.join(' + ')),
		...simple('bands', 'column stripes', before.bands.columnSizes.join(' + '), after.bands.columnSizes.join(' + ')),
		...simple(
			'bands',
			'stripes begin anew at groups',
			before.bands.restartAtGroups ? 'yes' : 'no',
			after.bands.restartAtGroups ? 'yes' : 'no'
		),
		...simple('reading', 'reading', before.reading, after.reading)
	);
	const rules = new Set([...before.rules, ...after.rules].map(({ name }) => name));
	for (const name of rules) {
		const from = before.rules.find((rule) => rule.name === name);
		const to = after.rules.find((rule) => rule.name === name);
		const says = (rule: typeof from) =>
			rule && JSON.stringify([rule.where, rule.extends ?? 'cell', rule.off ? 'off' : 'on']);
		if (!from || !to) differences.push(...simple(`rule:${name}`, 'rule', from && 'there', to && 'there'));
		else if (says(from) !== says(to))
			differences.push({ place: `rule:${name}`, what: 'condition', before: 'as it was', after: 'changed' });
		differences.push(...compareLeaves(`rule:${name}`, from?.leaves, to?.leaves));
	}
	const order = (style: FlatStyle) => style.rules.map(({ name }) => name).join(', ');
	if (before.rules.length === after.rules.length)
		differences.push(...simple('rules', 'order', order(before), order(after)));
	for (const name of new Set([...before.inks.keys(), ...after.inks.keys()]))
		differences.push(...simple('inks', name, before.inks.get(name), after.inks.get(name)));
	const roleText = (style: FlatStyle, name: string) => {
		const role = style.typeRoles.get(name);
		return role && Object.values(role).join(' ');
	};
	for (const name of new Set([...before.typeRoles.keys(), ...after.typeRoles.keys()]))
		differences.push(...simple('type roles', name, roleText(before, name), roleText(after, name)));
	return differences;
}

/** A difference in words: "header: fill fern → dusk". */
export const differenceWords = ({ place, what, before, after }: Difference): string =>
	`${partWords(place)}: ${what} ${before ?? 'not set'} → ${after ?? 'not set'}`;
