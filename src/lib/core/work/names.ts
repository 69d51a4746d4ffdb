import { isHeader } from '../roles/index.ts';
import { isShare, SHARES, unitMeasure, type Figure, type Measure } from '../values/figure.ts';
import { parseValue } from '../values/parse.ts';
import { unitName, unitOf } from '../values/units.ts';
import { tableOf } from './convert.ts';
import { anchorOf, isCovered, type WorkRow, type WorkTable } from './table.ts';

const known = new WeakMap<readonly WorkRow[], readonly string[]>();

/**
 * What formulas call the columns: the words of the lowest header tier; where those are not one column, with the tier above,
 * `Plan / Labour` (figures.md, *Formulas as typed*). A column that no header names is called by its place, from 1.
 */
export function columnNames(work: WorkTable): readonly string[] {
	let names = known.get(work.rows);
	if (!names || names.length !== work.columns.length) known.set(work.rows, (names = namesIn(work)));
	return names;
}
function namesIn(work: WorkTable): string[] {
	const own = tableOf(work).columnInfo.map(({ name }) => name);
	const headers = work.rows.flatMap(({ role }, r) => (isHeader(role) ? [r] : []));
	const above = (c: number): string | undefined => {
		for (const r of headers.toReversed()) {
			const at = anchorOf(work, r, c);
			const slot = work.rows[at.r]!.cells[at.c]!;
			const text = isCovered(slot) ? '' : slot.text.trim();
			if (text && text !== own[c]) return text;
		}
		return undefined;
	};
	return own.map((name, c) => {
		if (!name) return `column ${c + 1}`;
		if (own.every((other, i) => i === c || other !== name)) return name;
		const tier = above(c);
		return tier ? `${tier} / ${name}` : name;
	});
}

/** What a heading says its figures are measured in: “Length (mm)”, “Cost, €”. Undefined where it says nothing. */
export function headingMeasure(name: string): Measure | undefined {
	const said = /\(([^()]{1,12})\)\s*$|,\s*([^\s,]{1,12})\s*$/u.exec(name);
	const sign = (said?.[1] ?? said?.[2])?.trim();
	if (!sign) return undefined;
	if (sign === '%') return { kind: 'percent' };
	if (sign === '‰') return { kind: 'permille' };
	const money = parseValue(/^\p{Sc}$/u.test(sign) ? `${sign}1` : `1 ${sign}`);
	if (money.type === 'money' && money.currency) return { kind: 'money', currency: money.currency };
	const unit = unitName(sign);
	return unitOf(unit) && unitMeasure(unit);
}

/** A figure of a column whose heading says the measure: a plain one is taken in it. */
export function inMeasure(figure: Figure | undefined, measure: Measure | undefined): Figure | undefined {
	if (!figure || !measure || figure.measure.kind !== 'plain') return figure;
	return { amount: isShare(measure) ? figure.amount.over(SHARES[measure.kind]) : figure.amount, measure };
}
