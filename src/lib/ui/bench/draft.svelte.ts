import type { Style } from '$lib/core/style/types.ts';
import { call, RequestError } from '../api.ts';

export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict';

export interface DraftStep {
	readonly label: string;
	readonly definition: Style;
}

/** The steps of a style as the server has them: `first` is the number of the first, `at` that of the one it stands at. */
export interface DraftHistory {
	readonly first: number;
	readonly at: number;
	readonly steps: readonly DraftStep[];
}

/** What another window saved: what a conflict is answered with. */
interface Theirs {
	readonly version: number;
	readonly definition: Style;
	readonly history: DraftHistory;
}

/** Milliseconds after the last change before it is saved. */
const REST = 400;
/** Changes of one thing within this time are one step. */
const ONE_STEP = 1_200;

/**
 * A style as it is being worked on: its steps for undo and redo, which outlive the window, and saving as one goes, never
 * over somebody else's work.
 */
export class StyleDraft {
	state: SaveState = $state('saved');
	fault: string | undefined = $state();
	/** What somebody else saved in the meantime. */
	theirs: Theirs | undefined = $state.raw();
	private steps: readonly DraftStep[] = $state.raw([]);
	private at = $state(0);
	private first: number;
	/** Steps from this one on are not on the server yet. */
	private unsaved: number;
	private lastChange = { label: '', time: 0 };
	private timer: ReturnType<typeof setTimeout> | undefined;
	private running: Promise<void> = Promise.resolve();

	constructor(
		readonly id: string,
		private savedVersion: number,
		history: DraftHistory
	) {
		this.steps = history.steps;
		this.first = history.first;
		this.at = history.at - history.first;
		this.unsaved = this.steps.length;
	}

	get version(): number {
		return this.savedVersion;
	}
	get definition(): Style {
		return this.steps[this.at]!.definition;
	}
	/** What undo would take back, and redo bring again. */
	get undoable(): string | undefined {
		return this.at > 0 ? this.steps[this.at]!.label : undefined;
	}
	get redoable(): string | undefined {
		return this.steps[this.at + 1]?.label;
	}

	/** A new step. Going on with the same thing within a moment (typing, dragging) stays one step. */
	change(definition: Style, label: string): void {
		if (definition === this.definition) return;
		const now = Date.now();
		const goesOn =
			label === this.lastChange.label &&
			now - this.lastChange.time < ONE_STEP &&
			this.at === this.steps.length - 1 &&
			this.at > 0;
		this.lastChange = { label, time: now };
		const keep = goesOn ? this.at : this.at + 1;
		this.steps = [...this.steps.slice(0, keep), { label, definition }];
		this.unsaved = Math.min(this.unsaved, keep);
		this.moveTo(this.steps.length - 1);
	}
	undo(): void {
		if (this.at > 0) this.moveTo(this.at - 1);
		this.lastChange.label = '';
	}
	redo(): void {
		if (this.at < this.steps.length - 1) this.moveTo(this.at + 1);
		this.lastChange.label = '';
	}

	private moveTo(at: number): void {
		this.at = at;
		if (this.state === 'conflict') return;
		this.state = 'waiting';
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.save(), REST);
	}

	/** Saves now what is not saved yet; one request at a time. */
	save(): Promise<void> {
		clearTimeout(this.timer);
		this.running = this.running.then(() => this.send());
		return this.running;
	}

	private async send(): Promise<void> {
		if (this.state === 'saved' || this.state === 'conflict') return;
		const sent = { steps: this.steps, at: this.at, unsaved: this.unsaved };
		this.state = 'saving';
		this.fault = undefined;
		try {
			const { version } = await call<{ version: number }>('PUT', `/api/styles/${this.id}`, {
				version: this.savedVersion,
				from: this.first + sent.unsaved,
				at: this.first + sent.at,
				steps: sent.steps.slice(sent.unsaved)
			});
			this.savedVersion = version;
			if (this.unsaved === sent.unsaved) {
				// What was changed meanwhile begins where the two lists part.
				let same = 0;
				while (same < this.steps.length && this.steps[same] === sent.steps[same]) same++;
				this.unsaved = same;
			}
			this.state = this.at === sent.at && this.unsaved === this.steps.length ? 'saved' : 'waiting';
			if (this.state === 'waiting') this.timer = setTimeout(() => void this.save(), REST);
		} catch (error) {
			this.fault = (error as Error).message;
			if (error instanceof RequestError && error.body.code === 'conflict') {
				this.theirs = error.body.current as Theirs;
				this.state = 'conflict';
			} else this.state = 'failed';
		}
	}

	/** Tries again after a failure. */
	retry(): Promise<void> {
		this.state = 'waiting';
		return this.save();
	}

	/** Takes over what the server has now, its steps included; one's own steps of this window are gone unless `mine` is kept as one. */
	private adopt({ version, history }: Pick<Theirs, 'version' | 'history'>): void {
		this.savedVersion = version;
		this.first = history.first;
		this.steps = history.steps;
		this.at = history.at - history.first;
		this.unsaved = this.steps.length;
		this.theirs = undefined;
		this.fault = undefined;
		this.state = 'saved';
		this.lastChange.label = '';
	}

	/** After a conflict: goes on from what the other window saved; one's own work can still be had by redo. */
	takeTheirs(): void {
		if (!this.theirs) return;
		const mine = this.definition;
		this.adopt(this.theirs);
		this.steps = [...this.steps.slice(0, this.at + 1), { label: 'what this window had', definition: mine }];
		this.unsaved = Math.min(this.unsaved, this.steps.length - 1);
	}

	/** After a conflict: saves one's own work over the other, knowingly, as one step that can be undone. */
	keepMine(): Promise<void> {
		if (!this.theirs) return Promise.resolve();
		const mine = this.definition;
		this.adopt(this.theirs);
		this.change(mine, 'saved over another window’s work');
		return this.save();
	}

	/** After something outside the bench changed the style (a leaf pushed up): what is there now. */
	reload(version: number, history: DraftHistory): void {
		clearTimeout(this.timer);
		this.adopt({ version, history });
	}
}
