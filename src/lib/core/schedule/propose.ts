import type { ScheduleDefinition } from './definition.ts';
import type { ObjectKind } from './objects.ts';

/** A first schedule has so many columns of attributes at most. */
const MOST_COLUMNS = 6;
/** Where nearly every object says something else, it is a number or a name of its own. */
const OWN = 0.9;
const FEW = 4;

/** An attribute's name as a heading: "pot-size" → "Pot size". */
export const headingFor = (attribute: string): string =>
	attribute.charAt(0).toUpperCase() + attribute.slice(1).replace(/[-_]/g, ' ');

/**
 * A first schedule of some kinds (all of them where none are named): the attributes that most of their objects have and
 * that do not tell every one of them apart, rows that say the same as one, and how many they are.
 */
export function proposeSchedule(kinds: readonly ObjectKind[], wanted: readonly string[]): ScheduleDefinition {
	const chosen = wanted.length ? kinds.filter(({ kind }) => wanted.includes(kind)) : kinds;
	const total = chosen.reduce((sum, { count }) => sum + count, 0);
	const said = new Map<string, { count: number; values: number }>();
	for (const { attributes } of chosen)
		for (const { name, count, values } of attributes) {
			const known = said.get(name) ?? { count: 0, values: 0 };
			said.set(name, { count: known.count + count, values: known.values + values });
		}
	const telling = [...said].filter(
		([, { count, values }]) => count * 2 > total && (count < FEW || values <= count * OWN)
	);
	const headings = new Set<string>();
	const columns = telling.slice(0, MOST_COLUMNS).flatMap(([attribute]) => {
		const name = headingFor(attribute);
		if (headings.has(name)) return [];
		headings.add(name);
		return [{ from: 'attribute' as const, attribute, name }];
	});
	return {
		format: 'heptarch-schedule',
		version: 1,
		title: chosen.length === 1 ? chosen[0]!.name : 'Schedule',
		...(chosen.length < kinds.length && { kinds: chosen.map(({ kind }) => kind) }),
		rows: 'merged',
		columns: [
			...(columns.length ? columns : [{ from: 'kind' as const, name: 'Object' }]),
			{ from: 'count', name: headings.has('No.') ? 'Count' : 'No.' }
		]
	};
}
