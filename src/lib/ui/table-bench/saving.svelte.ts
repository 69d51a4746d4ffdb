import { mergedWork, type CellClash } from '$lib/core/work/merge.ts';
import { applyPatch, patchBetween, type Patch } from '$lib/core/work/patch.ts';
import { tidy, type WorkTable } from '$lib/core/work/table.ts';
import type { TableState } from '$lib/workbench/state.ts';
import type { WorkAnswer } from '$lib/server/http/contract.ts';
import { call, RequestError } from '../api.ts';
import { answerOf } from '../history.svelte.ts';
import { Keeping } from '../keeping.ts';
import { ofOwn } from '../people/who.ts';
import { tellPublished } from '../published.ts';
import type { ListedStep } from '../shell/steps.ts';

/** A state of the table, with what led to it. `id` is its step's on the server; undefined until it is saved. */
export interface Entry extends ListedStep {
	readonly work: WorkTable;
	id: number | null | undefined;
}

/**
 * States of a table from the oldest that is kept, made from what the server keeps. The one that stands wears what its
 * document says now: `state`.
 */
export function entriesOf({ base, from, steps, at }: Omit<WorkAnswer, 'wears' | 'by'>, state: TableState): Entry[] {
	const entries: Entry[] = [{ label: 'as it was', work: base, id: from }];
	let work = base;
	for (const { patch, ...step } of steps) {
		work = applyPatch(work, patch);
		entries.push({ ...step, work });
	}
	const { style, edition, pinned, partsOff, carry, cleared } = state;
	const wears = tidy({ style, edition, pinned, partsOff, carry, cleared });
	// States that wore the same wear what the document says now: that was not changed here.
	const before = JSON.stringify(entries[at]!.work.wears ?? {});
	if (JSON.stringify(wears) === before) return entries;
	return entries.map((entry) =>
		JSON.stringify(entry.work.wears ?? {}) === before ? { ...entry, work: { ...entry.work, wears } } : entry
	);
}

/** What a browser keeps of work that the server does not have yet. */
interface Kept {
	/** The step that the changes follow. */
	readonly after: number | null;
	readonly changes: readonly { readonly label: string; readonly patch: Patch }[];
	/** What is being typed, and in which row and column. */
	readonly typing?: { readonly row: number; readonly column: number; readonly text: string };
}

export type Loaded = WorkAnswer;

/** Milliseconds after which a change that the server failed at is sent again. */
const AGAIN_AFTER = 3_000;
/** An edit is shown first, and kept and sent so many milliseconds later. */
const SOON = 30;

/** The server understood, and will not have it: asking again is no use. */
const isRefusal = (error: unknown): error is RequestError =>
	error instanceof RequestError && !['offline', 'internal', 'refused', 'conflict'].includes(error.body.code);

type Order = { readonly entry: Entry; readonly before: Entry; readonly patch: Patch } | { readonly to: Entry };

/** What was done here while somebody else changed the same table. */
export interface Mine {
	/** Laid over theirs as far as the two go together; undefined where they do not at all. */
	readonly merged: WorkTable | undefined;
	/** The same with one's own where they clash, to be decided; undefined where nothing is. */
	readonly undecided: WorkTable | undefined;
	readonly clashes: readonly CellClash[];
}

/** What was done here, over what somebody else did to the same table. */
export function laidOver(common: WorkTable, mine: WorkTable, theirs: WorkTable): Mine {
	const result = mergedWork(common, mine, theirs);
	if (!result) return { merged: undefined, undecided: mine, clashes: [] };
	const { merged, clashes } = result;
	return { merged, undecided: clashes.length ? result.mine : undefined, clashes };
}

interface Listener {
	/** Somebody else's change came in: what the server has now, and what was done here meanwhile. */
	readonly came: (loaded: Loaded, mine?: Mine) => void;
	/** The server will not have a change: what stands without it, and why. */
	readonly refused: (entries: readonly Entry[], label: string, why: string) => void;
}

/**
 * Saves edits one after the other while work goes on. What is not saved yet is kept in the browser, too, so that it is
 * there again after either side went down.
 */
export class Saving {
	/** How many changes the server does not have yet. */
	waiting = $state(0);
	/** Why the last attempt failed. */
	fault: string | undefined = $state();
	private orders: Order[] = [];
	private isBusy = false;
	private timer: ReturnType<typeof setTimeout> | undefined;
	private typing: Kept['typing'];
	private standing: Entry;
	private readonly store: Keeping<Kept>;
	/** What waits for a decision, as a change of what stands. */
	private held: Kept['changes'] = [];

	constructor(
		private readonly path: `/api/documents/${string}/tables/${number}/work`,
		standing: Entry,
		private readonly listener: Listener
	) {
		this.standing = standing;
		this.store = new Keeping(ofOwn(path));
	}

	get isIdle(): boolean {
		return this.orders.length === 0 && !this.isBusy;
	}

	add(entry: Entry, before: Entry): void {
		this.orders.push({ entry, before, patch: patchBetween(before.work, entry.work) });
		this.go();
	}
	move(to: Entry): void {
		this.orders.push({ to });
		this.go();
	}
	/** Once what was done is on the screen. */
	private go(): void {
		this.waiting = this.orders.length;
		setTimeout(() => {
			this.keep();
			void this.send();
		}, SOON);
	}

	/** Keeps what waits for a decision; undefined where nothing does. */
	hold(work: WorkTable | undefined): void {
		this.held = work ? [{ label: 'yours, not decided', patch: patchBetween(this.standing.work, work) }] : [];
		this.keep();
	}
	/** Keeps what is being typed; undefined where nothing is. */
	keepTyping(typing: Kept['typing']): void {
		this.typing = typing;
		this.keep();
	}
	private keep(): void {
		const changes = this.orders.flatMap((order) =>
			'entry' in order
				? [{ label: order.entry.label, patch: order.patch }]
				: [{ label: 'undo', patch: patchBetween(this.standing.work, order.to.work) }]
		);
		changes.push(...this.held);
		this.store.set(
			changes.length || this.typing
				? {
						after: this.standing.id ?? null,
						changes: this.orders.every((order) => 'entry' in order) ? changes : this.asOne(),
						...(this.typing && { typing: this.typing })
					}
				: undefined
		);
	}
	/** All that waits as one change, where undo is among it. */
	private asOne(): Kept['changes'] {
		const last = this.orders.at(-1)!;
		const work = 'entry' in last ? last.entry.work : last.to.work;
		return [{ label: 'work that was not saved', patch: patchBetween(this.standing.work, work) }];
	}

	/** What a browser that went down had not saved, where it still follows the step that stands. */
	async kept(): Promise<Kept | undefined> {
		const kept = await this.store.adopt();
		return kept && kept.after === (this.standing.id ?? null) ? kept : undefined;
	}

	private async send(): Promise<void> {
		if (this.isBusy) return;
		clearTimeout(this.timer);
		this.isBusy = true;
		try {
			while (this.orders.length) {
				await this.sendOne(this.orders[0]!);
				this.fault = undefined;
				this.waiting = this.orders.length;
				this.keep();
			}
		} catch (error) {
			try {
				if (!(error instanceof RequestError && error.body.code === 'conflict')) throw error;
				await this.meet();
			} catch (fault) {
				if (isRefusal(fault)) return this.withoutFirst(fault);
				this.fault = (fault as Error).message;
				this.timer = setTimeout(() => void this.send(), AGAIN_AFTER);
			}
		} finally {
			this.isBusy = false;
		}
		// What was laid over another window's change goes on its way now.
		if (this.orders.length && !this.fault) void this.send();
	}
	/** What the server will not have goes, and what was done after it stays: changes name whole rows. */
	private withoutFirst({ message }: RequestError): void {
		const [refused, ...rest] = this.orders;
		if (!refused) return;
		const entries: Entry[] = [];
		let { work } = this.standing;
		for (const order of rest) {
			if (!('entry' in order)) continue;
			try {
				work = applyPatch(work, order.patch);
				entries.push({ label: order.entry.label, work, id: undefined });
			} catch {
				// It rests on what was refused.
			}
		}
		this.orders = [];
		this.waiting = 0;
		this.fault = undefined;
		this.keep();
		this.listener.refused(entries, 'entry' in refused ? refused.entry.label : 'a step', message);
	}
	private async sendOne(order: Order): Promise<void> {
		const after = this.standing.id ?? null;
		if ('entry' in order) {
			const { entry, before, patch } = order;
			const { step, root, published } = await this.answerOf(() =>
				call('POST', this.path, { after, label: entry.label, patch })
			);
			await tellPublished(published);
			if (root !== null) before.id = root;
			entry.id = step;
			this.standing = entry;
		} else {
			const { id: to } = order.to;
			if (to !== this.standing.id && typeof to === 'number')
				await this.answerOf(() => call('PUT', this.path, { from: after, to }));
			this.standing = order.to;
		}
		this.orders.shift();
	}
	private answerOf<T>(request: () => Promise<T>): Promise<T> {
		return answerOf(request, ({ message }) => (this.fault = message));
	}

	/** Somebody else changed the table: both changes stand, cell by cell; where they clash, a person decides. */
	private async meet(): Promise<void> {
		const loaded = await call('GET', this.path);
		const theirs = entriesOf(loaded, loaded.wears)[loaded.at]!.work;
		const last = this.orders.at(-1);
		const mine = last && ('entry' in last ? last.entry.work : last.to.work);
		const common = this.standing.work;
		this.orders = [];
		this.waiting = 0;
		if (!mine) return this.listener.came(loaded);
		this.listener.came(loaded, laidOver(common, mine, theirs));
	}

	/** Goes on from what the server has. */
	restart(standing: Entry): void {
		this.standing = standing;
		this.orders = [];
		this.waiting = 0;
		this.fault = undefined;
		this.keep();
	}

	/** Looks whether somebody else changed the table, unless there is something to save. */
	async look(): Promise<void> {
		if (!this.isIdle) return;
		try {
			const { isSame } = await call('GET', `${this.path}/since?after=${this.standing.id ?? ''}`);
			if (isSame || !this.isIdle) return;
			this.listener.came(await call('GET', this.path));
		} catch {
			// The next look, or the next change, will tell.
		}
	}
}
