import { Decimal } from 'decimal.js';
import type { Grid } from '../table/grid.ts';
import { atLevel, isHeader, type RowRole } from '../roles/index.ts';
import { NUMERIC_KINDS, type ColumnKind } from '../table/columns.ts';
import { canLabel, columnKind, type Guess } from './columns.ts';
import { factsOf, role, type Hints, type RowFacts, type Things } from './facts.ts';
import { recogniseHead } from './head.ts';
import { Sums, type SumEvidence } from './sums.ts';
import { forPurpose, purposeOf, type Clues } from './purpose/index.ts';
import type { Purpose } from './purpose/kinds.ts';
import type { Recognition } from './recognition.ts';
import { CURRENCY_NAME, TOTAL_NAME } from './words.ts';

const ORDINARY = role('body', 0.9, 'an ordinary row');

/** Notes at the foot; returns the index after the last row that is none. */
function recogniseNotes(facts: RowFacts[], from: number, out: Guess<RowRole>[]): number {
	let end = facts.length;
	while (end > from + 1) {
		const { whole, filled, label, words, texts } = facts[end - 1]!;
		if (filled !== 1 || words.total || words.subtotal) break;
		if (whole) out[end - 1] = role('note', words.note ? 0.95 : 0.8, 'one cell across the whole width at the foot');
		else if (words.note)
			out[end - 1] = role('note', 0.85, `its only text begins like a note (“${label.slice(0, 20)}”)`);
		else if (texts.length > 1 && texts[0]!.trim() && /\p{L}[.。]$/u.test(label) && label.includes(' '))
			out[end - 1] = role('note', 0.75, 'its only text is a sentence, in the first cell');
		else break;
		end--;
	}
	return end;
}

/** The header row that a row further down says again, as where a table was joined from the parts of several pages. */
function repeatedTier(
	facts: readonly RowFacts[],
	r: number,
	bodyStart: number,
	rows: readonly Guess<RowRole>[]
): number | undefined {
	const { filled, texts } = facts[r]!;
	if (filled < 2) return undefined;
	for (const [head, guess] of rows.slice(0, bodyStart).entries())
		if (guess && isHeader(guess.is) && texts.every((text, c) => text.trim() === facts[head]!.texts[c]!.trim()))
			return head;
	return undefined;
}

/** A heading with its number before it: “1 Hardy”, “2.1. Under glass”. */
const NUMBERED = /^\s*\d+(?:\.\d+)*\.?\s+\p{L}{3}/u;

function isGroupHeading(facts: RowFacts[], r: number, end: number): string | undefined {
	const { filled, whole, texts, words, hasAmount } = facts[r]!;
	if (filled !== 1 || words.total || words.subtotal || r + 1 >= end || texts.length < 2) return undefined;
	if (hasAmount && !NUMBERED.test(texts[0]!)) return undefined;
	if (whole) return 'one cell across the whole width with rows below it';
	const typical = Math.max(...facts.slice(r + 1, end).map((row) => row.filled));
	if (typical < 2 || !texts[0]!.trim()) return undefined;
	return 'only its first cell says anything, and rows follow';
}

/** Whether a row is a subtotal or total, by arithmetic first and by its words second. */
function judgeSum(sums: Sums, facts: RowFacts[], r: number, end: number, hints: Hints, lastFigures: number) {
	const { amounts, label, words, hasAmount } = facts[r]!;
	const evidence = sums.evidence(amounts);
	const best = evidence[0];
	const moreFollows = r < lastFigures;
	const named = words.total || words.subtotal;
	if (best && best.exact.length > 0) {
		/** Nothing but the sum, where the row above has other figures besides. */
		const standsAlone = () => {
			const figures = amounts.filter(Boolean).length;
			const above = facts[r - 1]!.amounts.filter(Boolean).length;
			return best.off.length === 0 && figures === best.exact.length && figures < above;
		};
		const enough = (best.addends >= 3 ? 4 : 5) - (sums.hasSubtotals ? 1 : 0);
		/** Too long a figure to be a sum by chance: round ones easily are. */
		const isLong = () => best.off.length === 0 && best.exact.some((c) => amounts[c]!.precision() >= enough);
		const looksApart = () => r > 0 && !!hints.bold?.(r) && !hints.bold(r - 1);
		const strong = () =>
			named ||
			!!hints.formula?.[r] ||
			(best.addends >= 2 &&
				(best.exact.length >= 2 || (!moreFollows && best.addends >= 3) || standsAlone() || isLong())) ||
			looksApart();
		const mostlyExact = best.exact.length >= best.off.length || named;
		if (mostlyExact && (best.addends >= 2 || named) && strong()) {
			let role: SumEvidence['role'] = best.role;
			if (words.subtotal || (moreFollows && !words.total && best.of === 'rows')) role = 'subtotal';
			else if (best.role === 'subtotal' && words.total && !moreFollows)
				role = evidence.some((e) => e.role === 'total' && e.exact.length) ? 'total' : 'subtotal';
			const headingFollows = () => facts.some((_, i) => i > r && i < end && isGroupHeading(facts, i, end));
			const totalFollows = () => facts.some((row, i) => i > r + 1 && i < end && row.words.total && row.hasAmount);
			if (words.total && moreFollows && (best.role !== 'total' || headingFollows() || totalFollows()))
				role = 'subtotal';
			const what = best.of === 'subtotals' ? `the ${best.addends} subtotals` : `the ${best.addends} rows above`;
			const text = facts[r]!.texts[best.exact[0]!]!.trim();
			return { role, confidence: named ? 0.99 : 0.85, reason: `${text} is the exact sum of ${what}`, best };
		}
	}
	if (!named && !(words.mean && !moreFollows) && !hints.formula?.[r]) return undefined;
	if (!hasAmount && facts[r]!.filled < 1) return undefined;
	// A total may stand above what it sums; one with rows above and below sums those above.
	const role: SumEvidence['role'] =
		words.subtotal || (moreFollows && words.total && evidence.length > 0) ? 'subtotal' : 'total';
	const reason = hints.formula?.[r] ? 'the file computes it as a sum' : `it is labelled “${label}”`;
	const same = evidence.find((candidate) => candidate.role === role) ?? best;
	return { role, confidence: 0.8, reason, best: words.mean ? undefined : same };
}

/**
 * Recognises what each row and column of a bare grid is, with confidence and reasons in words (engine §6).
 * Never throws, on any grid.
 */
export function recognise(grid: Grid, hints: Hints = {}): Recognition {
	const facts = factsOf(grid);
	const rows: Guess<RowRole>[] = [];
	const bodyStart = recogniseHead(grid, facts, hints, rows);
	const bodyEnd = recogniseNotes(facts, bodyStart, rows);
	const sums = new Sums();
	/** The last row with figures that is not called a total. */
	const lastFigures = facts.findLastIndex((row, i) => i < bodyEnd && row.hasAmount && !row.words.total);
	let level = 0;
	for (let r = bodyStart; r < bodyEnd; r++) {
		if (hints.header?.[r] && !rows[r]) {
			rows[r] = role('header:1', 0.9, 'the file calls it a header row');
			sums.heading();
			continue;
		}
		const tier = repeatedTier(facts, r, bodyStart, rows);
		if (tier !== undefined) {
			rows[r] = role(rows[tier]!.is, 0.95, `it says the same as row ${tier + 1}, which names the columns`);
			continue;
		}
		const heading = isGroupHeading(facts, r, bodyEnd);
		if (heading) {
			level = rows[r - 1]?.is.startsWith('group:') ? level + 1 : 1;
			rows[r] = role(atLevel('group', level), 0.85, heading);
			sums.heading();
			continue;
		}
		const sum = judgeSum(sums, facts, r, bodyEnd, hints, lastFigures);
		if (sum) {
			rows[r] = role(sum.role === 'total' ? 'total' : 'subtotal:1', sum.confidence, sum.reason);
		} else rows[r] = ORDINARY;
		sums.take(facts[r]!.amounts, rows[r]!.is);
	}
	const columns = recogniseColumns(grid, facts, rows);
	const asData = { rows, columns, ...recogniseEdges(grid, facts, rows, columns) };
	const clues: Clues = {
		grid,
		facts,
		asData,
		things: hints.things ?? (() => NO_THINGS),
		isPlain: () => hints.isPlain?.(),
		isCalledSum: (r) => isCalledSum(facts, r, hints)
	};
	const purpose = purposeOf(clues);
	const judged = forPurpose(asData, purpose.is, clues);
	return judged === asData ? { ...asData, purpose } : { ...judged, purpose, asData };
}

const NO_THINGS: Things = {};

/** Whether a row says that it is a sum: by its label, its look or a formula of the file. */
const isCalledSum = (facts: readonly RowFacts[], r: number, hints: Hints): boolean => {
	const { words, hasAmount } = facts[r]!;
	if (!hasAmount) return false;
	return words.total || words.subtotal || !!hints.formula?.[r] || (r > 0 && !!hints.bold?.(r) && !hints.bold(r - 1));
};

/** What a table's rows and columns are where somebody says what it is for. */
export function recognisedAs(grid: Grid, recognition: Recognition, purpose: Purpose): Recognition {
	if (purpose === recognition.purpose.is) return recognition;
	const { purpose: guessed, asData, ...judged } = recognition;
	const plain = asData ?? judged;
	const facts = factsOf(grid);
	const clues: Clues = {
		grid,
		facts,
		asData: plain,
		things: () => NO_THINGS,
		isPlain: () => undefined,
		isCalledSum: (r) => isCalledSum(facts, r, {})
	};
	return { ...forPurpose(plain, purpose, clues), purpose: guessed, asData: plain };
}

/** Rows whose label says what the figures of the whole table are. */
const SPEAKS_OF_ALL: ReadonlySet<RowRole> = new Set(['title', 'total']);

function recogniseColumns(grid: Grid, facts: RowFacts[], rows: readonly Guess<RowRole>[]) {
	const headers = rows.flatMap(({ is }, r) => (isHeader(is) ? [r] : []));
	const body = rows.flatMap(({ is }, r) => (is === 'body' ? [r] : []));
	const isMoneyTable =
		rows.some(({ is }, r) => SPEAKS_OF_ALL.has(is) && CURRENCY_NAME.test(facts[r]!.label)) ||
		(grid.columns > 1 && CURRENCY_NAME.test(columnPath(grid, headers, 0)));
	const columns = Array.from({ length: grid.columns }, (_, c) => {
		const name = columnName(grid, headers, c);
		const kind = columnKind(
			columnPath(grid, headers, c),
			body.map((r) => facts[r]!.texts[c]!),
			body.map((r) => facts[r]!.values[c]!),
			isMoneyTable
		);
		return { ...kind, name };
	});
	const money = columns.find(({ is }) => is === 'money');
	if (!money) return columns;
	const isSummed = addsUp(facts, body, columns);
	return columns.map((column, c) => {
		const because = isSummed
			? `it adds up with “${money.name}”`
			: hasCents(body.flatMap((r) => facts[r]!.texts[c]!.trim() || [])) &&
				`two decimals throughout, beside “${money.name}”`;
		return because && (column.is === 'count' || column.is === 'quantity')
			? { ...column, is: 'money' as const, confidence: 0.7, reasons: [because] }
			: column;
	});
}

/** Amounts to the cent, whole ones among them: nothing else is written so. */
const hasCents = (texts: readonly string[]): boolean =>
	texts.every((text) => /[.,]\d\d$/.test(text)) && texts.some((text) => /[.,]00$/.test(text));

/** Whether the last column is, in two rows or more and in all that have figures, the sum of the other figures of its row. */
function addsUp(
	facts: readonly RowFacts[],
	body: readonly number[],
	columns: readonly { readonly is: ColumnKind }[]
): boolean {
	const last = columns.length - 1;
	let summed = 0;
	for (const r of body) {
		const { amounts } = facts[r]!;
		const parts = amounts.filter(
			(amount, c): amount is Decimal =>
				!!amount && c < last && NUMERIC_KINDS.has(columns[c]!.is) && columns[c]!.is !== 'percent'
		);
		if (!amounts[last] || parts.length < 2) continue;
		if (!Decimal.sum(...parts).equals(amounts[last]!)) return false;
		summed++;
	}
	return summed >= 2;
}

/** A column's name: the text of the lowest header cell over it, trimmed. */
export function columnName(grid: Grid, headerRows: readonly number[], c: number): string {
	for (let i = headerRows.length - 1; i >= 0; i--) {
		const r = headerRows[i]!;
		const cell = grid.cells[grid.slots[r * grid.columns + c]!]!;
		if (cell.text.trim()) return cell.text.trim();
	}
	return '';
}

/** Everything that the header says over a column, outermost tier first. */
function columnPath(grid: Grid, headerRows: readonly number[], c: number): string {
	const said = headerRows.map((r) => grid.cells[grid.slots[r * grid.columns + c]!]!.text.trim());
	return [...new Set(said)].filter(Boolean).join(', ');
}

function recogniseEdges(
	grid: Grid,
	facts: RowFacts[],
	rows: readonly Guess<RowRole>[],
	columns: readonly Guess<ColumnKind>[]
) {
	const first: Guess<number> =
		grid.columns > 1 && canLabel(columns[0]!.is)
			? { is: 1, confidence: 0.85, reasons: [`the first column is ${columns[0]!.is}, and labels the rows`] }
			: { is: 0, confidence: 0.7, reasons: ['no column labels the rows'] };
	const last = grid.columns - 1;
	const body = rows.flatMap(({ is }, r) => (is === 'body' ? [r] : []));
	const name = 'name' in (columns[last] ?? {}) ? String((columns[last] as { name?: unknown }).name) : '';
	if (grid.columns >= 4 && addsUp(facts, body, columns))
		return {
			firstColumns: first,
			lastColumns: { is: 1, confidence: 0.95, reasons: ['each cell of the last column is the exact sum of its row'] }
		};
	if (grid.columns > 2 && TOTAL_NAME.test(name))
		return {
			firstColumns: first,
			lastColumns: { is: 1, confidence: 0.8, reasons: [`the last column is named “${name}”`] }
		};
	return {
		firstColumns: first,
		lastColumns: { is: 0, confidence: 0.8, reasons: ['the last column is one among the others'] }
	};
}
