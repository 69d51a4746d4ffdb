import type { Decimal } from 'decimal.js';
import type { RowRole } from '../roles/index.ts';

/** A row that sums others: which sum, in how many columns it is exact, and where it is off. */
export interface SumEvidence {
	readonly role: 'subtotal' | 'total';
	readonly exact: number[];
	/** Columns whose figure differs from the sum. */
	readonly off: number[];
	/** By how much the figure of such a column differs. */
	readonly difference: (column: number) => Decimal;
	/** How many rows were added up. */
	readonly addends: number;
	readonly of: 'rows' | 'subtotals';
}

type Amounts = readonly (Decimal | undefined)[];

/** A sum per column that grows row by row. */
class Running {
	count = 0;
	private readonly sums: (Decimal | undefined)[] = [];
	add(row: Amounts): void {
		this.count++;
		row.forEach((amount, column) => {
			if (amount) this.sums[column] = this.sums[column]?.plus(amount) ?? amount;
		});
	}
	sum(column: number): Decimal | undefined {
		return this.sums[column];
	}
}

/** Adds up rows as they come, and tells for each whether it is the sum of some before it. */
export class Sums {
	private readonly body = new Running();
	/** Since the last heading or subtotal; all of the body before the first. */
	private block = this.body;
	private readonly subtotals = new Running();

	get hasSubtotals(): boolean {
		return this.subtotals.count > 0;
	}
	heading(): void {
		this.block = new Running();
	}
	/** A row without figures, such as an empty one between two blocks, adds nothing. */
	take(row: Amounts, role: RowRole): void {
		if (row.every((amount) => !amount)) return;
		if (role.startsWith('subtotal')) {
			this.subtotals.add(row);
			this.block = new Running();
		} else if (role === 'body') {
			this.body.add(row);
			if (this.block !== this.body) this.block.add(row);
		}
	}

	/** The sums that `row` might be, the most telling first. */
	evidence(row: Amounts): SumEvidence[] {
		const candidates: { role: SumEvidence['role']; of: SumEvidence['of']; rows: Running }[] = [];
		if (this.subtotals.count > 0) {
			if (this.block.count === 0) candidates.push({ role: 'total', of: 'subtotals', rows: this.subtotals });
			candidates.push({ role: 'total', of: 'rows', rows: this.body });
			candidates.push({ role: 'subtotal', of: 'rows', rows: this.block });
		} else {
			candidates.push({ role: 'total', of: 'rows', rows: this.body });
			if (this.block.count < this.body.count) candidates.push({ role: 'subtotal', of: 'rows', rows: this.block });
		}
		return candidates
			.filter(({ rows }) => rows.count > 0)
			.map(({ role, of, rows }) => {
				const exact: number[] = [];
				const off: number[] = [];
				row.forEach((amount, column) => {
					const sum = amount && rows.sum(column);
					if (!amount || !sum) return;
					if (sum.equals(amount)) exact.push(column);
					else off.push(column);
				});
				const sums = off.map((column) => rows.sum(column)!);
				const difference = (column: number) => row[column]!.minus(sums[off.indexOf(column)]!);
				return { role, of, exact, off, difference, addends: rows.count };
			})
			.sort((a, b) => b.exact.length - a.exact.length);
	}
}
