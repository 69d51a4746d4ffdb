import { Decimal } from 'decimal.js';
import type { RowRole } from '../table/roles.ts';

/** A row that sums others: which sum, in how many columns it is exact, and where it is off. */
export interface SumEvidence {
	readonly role: 'subtotal' | 'total';
	readonly exact: number[];
	/** Columns whose figure differs from the sum: by how much. */
	readonly off: { column: number; difference: Decimal }[];
	/** How many rows were added up. */
	readonly addends: number;
	readonly of: 'rows' | 'subtotals';
}

type Amounts = readonly (Decimal | undefined)[];

function add(rows: readonly Amounts[], column: number): Decimal | undefined {
	const present = rows.flatMap((row) => row[column] ?? []);
	return present.length ? Decimal.sum(...present) : undefined;
}

/** Adds up rows as they come, and tells for each whether it is the sum of some before it. */
export class Sums {
	private block: Amounts[] = [];
	private body: Amounts[] = [];
	private subtotals: Amounts[] = [];

	heading(): void {
		this.block = [];
	}
	take(row: Amounts, role: RowRole): void {
		if (role.startsWith('subtotal')) {
			this.subtotals.push(row);
			this.block = [];
		} else if (role === 'body') {
			this.block.push(row);
			this.body.push(row);
		}
	}

	/** The sums that `row` might be, the most telling first. */
	evidence(row: Amounts): SumEvidence[] {
		const candidates: { role: SumEvidence['role']; of: SumEvidence['of']; rows: Amounts[] }[] = [];
		if (this.subtotals.length > 0) {
			if (this.block.length === 0) candidates.push({ role: 'total', of: 'subtotals', rows: this.subtotals });
			candidates.push({ role: 'total', of: 'rows', rows: this.body });
			candidates.push({ role: 'subtotal', of: 'rows', rows: this.block });
		} else {
			candidates.push({ role: 'total', of: 'rows', rows: this.body });
			if (this.block.length < this.body.length) candidates.push({ role: 'subtotal', of: 'rows', rows: this.block });
		}
		return candidates
			.filter(({ rows }) => rows.length > 0)
			.map(({ role, of, rows }) => {
				const exact: number[] = [];
				const off: { column: number; difference: Decimal }[] = [];
				row.forEach((amount, column) => {
					const sum = amount && add(rows, column);
					if (!amount || !sum) return;
					if (sum.equals(amount)) exact.push(column);
					else off.push({ column, difference: amount.minus(sum) });
				});
				return { role, of, exact, off, addends: rows.length };
			})
			.sort((a, b) => b.exact.length - a.exact.length);
	}
}
