import { COLUMN_KINDS } from '../table/columns.ts';
import { choiceSchema, flagSchema, leaf, property, wordsSchema, yesOrNo, type SchemaOf } from './property.ts';

/** Ways to write a date. All but `iso` follow the locale (CLDR, through Intl). */
export const DATE_FORMATS = ['iso', 'short', 'medium', 'long', 'month', 'year'] as const;
export type DateFormat = (typeof DATE_FORMATS)[number];

const common = { aspect: 'formats' } as const;
const decimals: SchemaOf<number> = { type: 'integer', minimum: 0, maximum: 20 };
const currency: SchemaOf<string> = { type: 'string', pattern: '^[A-Z]{3}$' };

/** How figures and dates are written; it changes their text, and nothing of how the cell shows. */
export const numberFormat = property({
	section: 'Figures and dates',
	leaves: [
		leaf({
			...common,
			path: 'format.kind',
			schema: choiceSchema('none', ...COLUMN_KINDS),
			words: 'format',
			label: 'Written as',
			editor: 'choice'
		}),
		leaf({
			...common,
			path: 'format.currency',
			schema: currency,
			words: 'format, currency',
			label: 'Currency',
			editor: 'currency',
			bounds: 'A currency is three letters, such as EUR.'
		}),
		leaf({
			...common,
			path: 'format.decimals',
			schema: decimals,
			words: 'format, decimals',
			label: 'Decimals',
			editor: 'number',
			bounds: 'Decimals are a whole number from 0 to 20.'
		}),
		leaf({
			...common,
			path: 'format.grouping',
			schema: flagSchema,
			words: 'format, grouping',
			label: 'Thousands',
			editor: 'flag',
			say: yesOrNo
		}),
		leaf({
			...common,
			path: 'format.negative',
			schema: choiceSchema('minus', 'parentheses'),
			words: 'format, negative',
			label: 'Negative',
			editor: 'choice'
		}),
		leaf({
			...common,
			path: 'format.zero',
			schema: wordsSchema(0, 40),
			words: 'format, zero',
			label: 'Zero as',
			editor: 'words',
			bounds: 'What stands for zero has up to 40 characters.'
		}),
		leaf({
			...common,
			path: 'format.unit',
			schema: wordsSchema(0, 40),
			words: 'format, unit',
			label: 'Unit',
			editor: 'words',
			bounds: 'A unit has up to 40 characters.'
		}),
		leaf({
			...common,
			path: 'format.date',
			schema: choiceSchema(...DATE_FORMATS),
			words: 'format, date',
			label: 'Date as',
			editor: 'date'
		})
	],
	fields: []
});
