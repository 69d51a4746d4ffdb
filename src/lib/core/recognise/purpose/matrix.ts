import { isHeader, roleFamily } from '../../roles/index.ts';
import { NUMERIC_KINDS } from '../../table/columns.ts';
import {
	CODE_NAME,
	DATE_NAME,
	PERCENT_NAME,
	PERIOD,
	PLAIN_MONEY_NAME,
	SHARE_NAME,
	TOTAL_NAME,
	UNIT_NAME
} from '../words.ts';
import { bareName, isMonth, isWeekday } from './cells.ts';
import { NOT, type Clues, type Verdict } from './purpose.ts';

const MARK =
	/^(?:[✓✔✗✘×xX✕•●○◯◐■◆★☆+–—-]|n\/?a|yes|no|ja|nein|oui|non|s[íi]|nee|sim|não|tak|nie|ano|ne|igen|nem|да|нет|так|ні|evet|hayır)$/iu;
const isYear = (name: string) => /^(?:1[5-9]|20|21)\d\d$/.test(name);
const isTime = (name: string) => /^\d{1,2}[:.]\d\d(?:\s*[–-]\s*\d{1,2}[:.]\d\d)?$/.test(name);
const isSize = (name: string) => /^[<>≤≥]?\s*[\d.,]+\s*(?:%|°?\p{L}{0,3}[²³]?)$/u.test(name);
const isLetter = (name: string) => /^\p{L}$/u.test(name);

/** Names of one sort by their own words: years, months, weekdays, times, sizes. */
const SORTS: readonly (readonly [words: string, is: (name: string) => boolean])[] = [
	['years', isYear],
	['months', isMonth],
	['weekdays', isWeekday],
	['times', isTime],
	['sizes', isSize],
	['letters', isLetter],
	['periods', (name) => PERIOD.test(name)]
];
/** What a column measures, by its name. */
const MEASURES = [UNIT_NAME, PLAIN_MONEY_NAME, PERCENT_NAME, SHARE_NAME, CODE_NAME, DATE_NAME];

const MOST_ROWS = 200;

/** Two axes of like things with one kind of value between them; sums, means and columns that measure different things make it data. */
export function matrix({ grid, facts, asData, isCalledSum }: Clues): Verdict {
	const { rows, columns, firstColumns, lastColumns } = asData;
	if (grid.columns < 3 || grid.rows < 3 || grid.rows > MOST_ROWS || lastColumns.is > 0) return NOT;
	const headers = rows.flatMap(({ is }, r) => (isHeader(is) ? [r] : []));
	const body = rows.flatMap(({ is }, r) => (['body', 'subtotal', 'total'].includes(roleFamily(is)) ? [r] : []));
	if (headers.length === 0 || body.length < 2) return NOT;
	if (body.some((r) => isCalledSum(r) || facts[r]!.words.mean)) return NOT;
	const own = columns.slice(1);
	const names = own.map(({ name }) => name.trim());
	const labels = body.map((r) => facts[r]!.texts[0]!.trim());
	if (labels.some((label) => !label) || names.filter(Boolean).length < own.length - 1) return NOT;
	if (names.some((name) => TOTAL_NAME.test(name))) return NOT;
	const values = body.flatMap((r) => own.map((_, i) => facts[r]!.texts[i + 1]!.trim()));
	const filled = values.filter(Boolean);
	if (filled.length < 4 || filled.length * 4 < values.length) return NOT;

	const known = new Set(labels.map(bareName));
	const shared = names.filter((name) => known.has(bareName(name))).length;
	if (shared >= 2 && shared >= 0.6 * names.length) return { sure: 0.92, why: ['its columns are named like its rows'] };
	const marks = filled.filter((text) => MARK.test(text));
	if (marks.length >= 0.85 * filled.length && own.length >= 2)
		return { sure: 0.9, why: ['headings above and beside, and nothing but marks between them'] };
	if (names.some((name) => MEASURES.some((measure) => measure.test(name)))) return NOT;
	// Where the first column is one of them as well, there is no axis beside.
	const sort = SORTS.find(([, is]) => names.every((name) => !name || is(name)) && !is(columns[0]!.name))?.[0];
	const kinds = new Set(own.map(({ is }) => (is === 'quantity' ? 'count' : is)));
	if (kinds.size > 1) return NOT;
	const [kind] = kinds;
	const isNumeric = NUMERIC_KINDS.has(kind as never);
	const corner = facts[headers.at(-1)!]!.texts[0]!.trim();
	const isOpenCorner = !corner || /[\\/×↓→]/u.test(corner);
	if (firstColumns.is === 0 && !isOpenCorner && !sort) return NOT;
	if (sort && own.length >= (isNumeric ? 3 : 2))
		return { sure: 0.75, why: [`its columns are ${sort}, with one kind of value below them`] };
	const few = new Set(filled.map(bareName)).size;
	if (!isNumeric && own.length >= 2 && filled.length >= 6 && few <= Math.max(3, filled.length / 4))
		return { sure: 0.75, why: [`headings above and beside, and the same ${few} words between them`] };
	if (isOpenCorner && own.length >= 3 && (isNumeric || kind === 'code'))
		return { sure: 0.65, why: ['headings above and beside an empty corner, and one kind of value between them'] };
	return NOT;
}
