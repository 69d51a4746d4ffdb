import type { Look, LookField } from '../core/cascade/look.ts';
import { aspectOfLeaf } from '../core/properties/index.ts';
import { writtenAspects, type Prepared } from './job.ts';
import type { Difference, SeenLeaf } from './read-back.ts';

/** What became of one leaf of a table, in settings: fields of cells and sides of cells. */
export interface LeafAccount {
	readonly leaf: SeenLeaf;
	/** Said by the living style. */
	readonly living: number;
	/** Carried as direct formatting. */
	readonly direct: number;
	/** Not sayable in the format. */
	readonly lost: number;
	/** Read back otherwise than intended. */
	readonly differs: number;
}

/** What became of one table; sums of its leaves. */
export interface TableAccount {
	readonly index: number;
	readonly style: string;
	readonly living: number;
	readonly direct: number;
	readonly lost: number;
	/** What the format cannot say, in words, with the number of cells. */
	readonly lostWhat: Readonly<Record<string, number>>;
	readonly leaves: readonly LeafAccount[];
	/** What the written file, read again, shows differently from what was intended. */
	readonly differences: readonly Difference[];
}

type Way = 'living' | 'direct' | 'lost';

/** Counts what becomes of a table's settings while it is written. */
export class Tally {
	private readonly counts = new Map<SeenLeaf, Record<Way, number>>();
	private readonly reasons = new Map<string, number>();

	add(leaf: SeenLeaf, way: Exclude<Way, 'lost'>, count: number): void {
		this.bump(leaf, way, count);
	}
	/** `what` says it in words. */
	lose(leaf: SeenLeaf, what: string, count: number): void {
		this.bump(leaf, 'lost', count);
		if (count) this.reasons.set(what, (this.reasons.get(what) ?? 0) + count);
	}
	private bump(leaf: SeenLeaf, way: Way, count: number): void {
		if (count === 0) return;
		let own = this.counts.get(leaf);
		if (!own) this.counts.set(leaf, (own = { living: 0, direct: 0, lost: 0 }));
		own[way] += count;
	}

	/** The account of a job whose table was written; `differences` are what its read-back found. */
	account({ job }: Pick<Prepared, 'job'>, differences: readonly Difference[]): TableAccount {
		const found = new Map<SeenLeaf, number>();
		for (const { leaf } of differences) found.set(leaf, (found.get(leaf) ?? 0) + 1);
		const leaves = [...new Set([...this.counts.keys(), ...found.keys()])].map((leaf): LeafAccount => {
			const own = this.counts.get(leaf) ?? { living: 0, direct: 0, lost: 0 };
			return { leaf, ...own, differs: found.get(leaf) ?? 0 };
		});
		const sum = (way: Way) => leaves.reduce((total, leaf) => total + leaf[way], 0);
		return {
			index: job.index,
			style: job.style.name,
			living: sum('living'),
			direct: sum('direct'),
			lost: sum('lost'),
			lostWhat: Object.fromEntries(this.reasons),
			leaves,
			differences
		};
	}
}

export interface Account {
	readonly tables: readonly TableAccount[];
	readonly remarks: readonly string[];
}

export interface Written {
	readonly bytes: Uint8Array<ArrayBuffer>;
	readonly account: Account;
}

/** Something that a look says and a format cannot. */
export interface LostLeaf {
	readonly leaf: SeenLeaf;
	readonly what: string;
}

/**
 * Counts what a table's style speaks of: as lost what the format cannot say, as direct formatting what `direct` tells
 * (by default all that is left), as living style the rest.
 */
export function tallyOf(
	one: Prepared,
	lostLeaves: (look: Look) => readonly LostLeaf[],
	direct?: ReadonlyMap<SeenLeaf, number>
): Tally {
	const { wanted, job, changes } = one;
	const tally = new Tally();
	const spoken = new Map<SeenLeaf, number>([['lines', changes ? 0 : wanted.across.length + wanted.down.length]]);
	const cellsOf = new Int32Array(wanted.looks.length);
	if (changes) for (const cell of changes) cellsOf[wanted.cellLook[cell]!]!++;
	else for (const look of wanted.cellLook) cellsOf[look]!++;
	if (changes && writtenAspects(job).has('linework')) spoken.set('lines', changes.size);
	wanted.looks.forEach((look, i) => {
		const cells = cellsOf[i]!;
		if (cells === 0) return;
		for (const field of Object.keys(look) as LookField[]) spoken.set(field, (spoken.get(field) ?? 0) + cells);
		for (const { leaf, what } of lostLeaves(look)) {
			tally.lose(leaf, what, cells);
			spoken.set(leaf, (spoken.get(leaf) ?? 0) - cells);
		}
	});
	if (job.table.carry.includes('formats')) tally.lose('formats', 'number formats', formatsLost(one));
	for (const [leaf, count] of spoken) {
		const said = Math.min(count, direct ? (direct.get(leaf) ?? 0) : count);
		tally.add(leaf, 'direct', said);
		tally.add(leaf, 'living', Math.max(0, count - said));
	}
	return tally;
}

/** What a format can say of number formats: nothing, where tables hold text. How many settings the style has. */
export function formatsLost({ resolved, job }: Prepared): number {
	if (!job.table.carry.includes('formats')) return 0;
	let count = 0;
	for (const leaves of resolved.style.parts.values())
		for (const path of leaves.keys()) if (aspectOfLeaf(path) === 'formats') count++;
	return count;
}
