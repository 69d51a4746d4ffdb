import { choiceSchema, field, inkSchema, leaf, positiveLengthSchema, property } from './property.ts';
import { computedLine, lineWords, type Line } from './line.ts';
import { LINE_PATTERNS, type LinePattern, type LinePlace } from './vocabulary.ts';

const WORDS: Readonly<Record<LinePlace, { readonly words: string; readonly short: string }>> = {
	top: { words: 'line above', short: 'above' },
	bottom: { words: 'line below', short: 'below' },
	start: { words: 'line before', short: 'before' },
	end: { words: 'line after', short: 'after' },
	betweenRows: { words: 'lines between rows', short: 'between rows' },
	betweenColumns: { words: 'lines between columns', short: 'between columns' },
	diagonalDown: { words: 'diagonal down', short: 'diagonal down' },
	diagonalUp: { words: 'diagonal up', short: 'diagonal up' }
};

/** Where a line of a part runs: "above", "between rows". */
export const linePlaceWords = (place: LinePlace): string => WORDS[place].short;

export const linePath = <const Place extends LinePlace, const Of extends 'pattern' | 'weight' | 'ink'>(
	place: Place,
	of: Of
): `lines.${Place}.${Of}` => `lines.${place}.${of}`;

/** The three leaves of a line. Lines at edges are decided edge by edge (engine §5); diagonals belong to the cell. */
function lineLeaves<const Place extends LinePlace>(place: Place) {
	const { words } = WORDS[place];
	const common = { aspect: 'linework' } as const;
	const edge = <const Of extends 'pattern' | 'weight' | 'ink'>(property: Of) =>
		place.startsWith('diagonal') ? {} : { edge: { place, property } };
	return [
		leaf({
			path: linePath(place, 'pattern'),
			schema: choiceSchema(...LINE_PATTERNS),
			words,
			label: 'Pattern',
			editor: 'choice',
			...common,
			...edge('pattern')
		}),
		leaf({
			path: linePath(place, 'weight'),
			schema: positiveLengthSchema,
			words: `${words}, weight`,
			label: 'Weight',
			editor: 'length',
			typed: { most: '20mm' },
			bounds: 'A weight cannot be less than nothing.',
			...common,
			...edge('weight')
		}),
		leaf({
			path: linePath(place, 'ink'),
			schema: inkSchema,
			words: `${words}, ink`,
			label: 'Ink',
			editor: 'ink',
			...common,
			...edge('ink')
		})
	] as const;
}

const diagonal = <const Place extends 'diagonalDown' | 'diagonalUp'>(place: Place) =>
	field<Place, Line | null>({
		name: place,
		aspect: 'linework',
		words: WORDS[place].words,
		leaves: [...lineLeaves(place).map(({ path }) => path), 'text.ink'],
		visible: 0,
		unsaid: null,
		compute(leaves, { ink }) {
			const said = (of: 'pattern' | 'weight' | 'ink') => leaves.get(linePath(place, of))?.value;
			const pattern = said('pattern') as LinePattern | undefined;
			if (pattern === undefined) return undefined;
			const weight = said('weight');
			const own = said('ink') ?? leaves.get('text.ink')?.value;
			return computedLine(
				{
					pattern,
					...(weight !== undefined && { weight: String(weight) }),
					...(own !== undefined && { ink: String(own) })
				},
				ink
			);
		},
		say: lineWords
	});

export const lines = property({
	section: 'Lines',
	leaves: [
		...lineLeaves('top'),
		...lineLeaves('bottom'),
		...lineLeaves('start'),
		...lineLeaves('end'),
		...lineLeaves('betweenRows'),
		...lineLeaves('betweenColumns'),
		...lineLeaves('diagonalDown'),
		...lineLeaves('diagonalUp')
	],
	fields: [diagonal('diagonalDown'), diagonal('diagonalUp')]
});
