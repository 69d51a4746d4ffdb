/** Rows are added up in blocks of this many. */
const BLOCK = 256;
/** The height of a row that was never drawn, where no other was either, in pixels. */
const GUESS = 26;

/** Heights of the rows of a table, in pixels; a row that was never drawn counts as high as those that were, on average. */
export class RowHeights {
	private readonly heights: Float64Array;
	private readonly sums: Float64Array;
	private readonly counts: Int32Array;
	private sum = 0;
	private count = 0;

	/** What a row is taken to be high, as long as no height is known. */
	private readonly usual: number;

	/** Rows are taken to be as high as those of `like` are on average, as long as none of their heights is known. */
	constructor(
		readonly rows: number,
		like?: RowHeights
	) {
		this.usual = like?.guess ?? GUESS;
		this.heights = new Float64Array(rows).fill(NaN);
		const blocks = Math.ceil(rows / BLOCK);
		this.sums = new Float64Array(blocks);
		this.counts = new Int32Array(blocks);
	}
	set(row: number, height: number): void {
		const before = this.heights[row]!;
		const block = Math.floor(row / BLOCK);
		if (Number.isNaN(before)) {
			this.counts[block]!++;
			this.count++;
		}
		const change = height - (Number.isNaN(before) ? 0 : before);
		this.heights[row] = height;
		this.sums[block]! += change;
		this.sum += change;
	}
	private get guess(): number {
		return this.count ? this.sum / this.count : this.usual;
	}
	private block(block: number, guess: number): number {
		const size = Math.min(BLOCK, this.rows - block * BLOCK);
		return this.sums[block]! + (size - this.counts[block]!) * guess;
	}
	private height(row: number, guess: number): number {
		const height = this.heights[row]!;
		return Number.isNaN(height) ? guess : height;
	}
	/** How high the rows `from` to `to` (which is not one of them) are together. */
	between(from: number, to: number): number {
		const guess = this.guess;
		let height = 0;
		for (let row = from; row < to;) {
			if (row % BLOCK === 0 && row + BLOCK <= to) {
				height += this.block(row / BLOCK, guess);
				row += BLOCK;
			} else height += this.height(row++, guess);
		}
		return height;
	}
	/** The row in which a distance from the top of the first row lies; the last one for what is below it. */
	at(distance: number): number {
		const guess = this.guess;
		let left = distance;
		let row = 0;
		while (row + BLOCK < this.rows) {
			const height = this.block(row / BLOCK, guess);
			if (left < height) break;
			left -= height;
			row += BLOCK;
		}
		while (row < this.rows - 1) {
			left -= this.height(row, guess);
			if (left < 0) break;
			row++;
		}
		return row;
	}
}
