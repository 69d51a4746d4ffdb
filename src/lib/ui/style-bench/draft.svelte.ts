import { mergedLeaves, same, type Clash } from '$lib/core/merge.ts';
import { notify } from '../notices.svelte.ts';
import { amended, moved, pushed, type Line } from '$lib/core/history.ts';
import type { Style } from '$lib/core/style/types.ts';
import { call, RequestError } from '../api.ts';
import { answerOf } from '../history.svelte.ts';
import { Keeping } from '../keeping.ts';
import { doerWords, isRefused, ofOwn } from '../people/who.ts';
import type { ListedStep } from '../shell/steps.ts';

export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict';

export interface DraftStep extends ListedStep {
	readonly definition: Style;
}

/** The steps of a style as the server has them: `first` is the number of the first, `at` that of the one it stands at. */
export interface DraftHistory {
	readonly version: number;
	readonly first: number;
	readonly at: number;
	readonly steps: readonly DraftStep[];
}

/** Steps that the server does not have yet, as a browser keeps them; numbers as in {@link DraftHistory}. */
interface Kept extends Pick<DraftHistory, 'version' | 'at' | 'steps'> {
	readonly from: number;
}

/** Milliseconds after the last change before it is saved. */
const REST = 400;
/** Changes of one thing within this time are one step. */
const ONE_STEP = 1_200;

/** Drafts that wait for a server, by their style: a page that is left and opened again finds its own. */
const waiting = new Map<string, StyleDraft>();

/**
 * A style as it is being worked on: its steps for undo and redo, which outlive the window, and saving as one goes, never
 * over somebody else's work.
 */
export class StyleDraft {
	state: SaveState = $state('saved');
	/** Why the server refused it. */
	fault: string | undefined = $state();
	/** What is said of a server that does not answer; undefined while it does. */
	offline: string | undefined = $state();
	/** Where what somebody else saved and one's own do not go together. */
	clashes: readonly Clash[] = $state.raw([]);
	/** What somebody else saved in the meantime. */
	theirs: DraftHistory | undefined = $state.raw();
	line: Line<DraftStep> = $state.raw({ steps: [], at: 0 });
	private first = 0;
	/** Steps from this one on are not on the server yet. */
	private unsaved = 0;
	private savedVersion = 0;
	/** What the server had when both began. */
	private base: Style | undefined;
	private lastChange = { label: '', time: 0 };
	private timer: ReturnType<typeof setTimeout> | undefined;
	private running: Promise<void> = Promise.resolve();
	/** Told the names of other styles that undo or redo moved along. */
	onAlong: ((names: readonly string[]) => void) | undefined;
	private readonly kept: Keeping<Kept>;

	/** The draft of a style, for the page that shows it now. */
	static of(id: string, history: DraftHistory): StyleDraft {
		const own = ofOwn(`/styles/${id}`);
		return waiting.get(own) ?? new StyleDraft(id, own, history);
	}
	private constructor(
		readonly id: string,
		/** What it is called in the stores of this browser. */
		private readonly own: string,
		history: DraftHistory
	) {
		this.kept = new Keeping(own);
		this.adopt(history);
	}

	/** Takes up what this browser had not saved when it went down, if nobody changed the style since; whether there was any. */
	async resume(): Promise<boolean> {
		if (this.state !== 'saved') return false;
		const kept = await this.kept.adopt();
		if (!kept || this.state !== 'saved') return false;
		this.kept.set(undefined);
		const from = kept.from - this.first;
		if (kept.version !== this.savedVersion || from < 0 || from > this.line.steps.length) return false;
		this.unsaved = from;
		this.stand({ steps: [...this.line.steps.slice(0, this.unsaved), ...kept.steps], at: kept.at - this.first });
		return true;
	}

	get version(): number {
		return this.savedVersion;
	}
	get definition(): Style {
		return this.line.steps[this.line.at]!.definition;
	}

	/** A new step. Going on with the same thing within a moment (typing, dragging) stays one step. */
	change(definition: Style, label: string): void {
		if (definition === this.definition || isRefused('designer')) return;
		const now = Date.now();
		const { steps, at } = this.line;
		const goesOn =
			label === this.lastChange.label && now - this.lastChange.time < ONE_STEP && at === steps.length - 1 && at > 0;
		this.lastChange = { label, time: now };
		const step = { label, definition };
		this.stand(goesOn ? amended(this.line, step) : pushed(this.line, step));
		this.unsaved = Math.min(this.unsaved, this.line.at);
	}
	/** Undo, redo, or any step of the list. */
	goTo(at: number): void {
		const line = moved(this.line, at);
		if (line !== this.line && !isRefused('designer')) this.stand(line);
		this.lastChange.label = '';
	}

	private stand(line: Line<DraftStep>): void {
		this.line = line;
		if (this.state === 'conflict') return;
		this.state = 'waiting';
		this.keep();
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.save(), REST);
	}
	private keep(): void {
		const { steps, at } = this.line;
		this.kept.set({
			version: this.savedVersion,
			from: this.first + this.unsaved,
			at: this.first + at,
			steps: steps.slice(this.unsaved)
		});
	}

	/** Saves now what is not saved yet; one request at a time. */
	save(): Promise<void> {
		clearTimeout(this.timer);
		this.running = this.running.then(() => this.send());
		return this.running;
	}

	private async send(): Promise<void> {
		if (this.state === 'saved' || this.state === 'conflict') return;
		const sent = { ...this.line, unsaved: this.unsaved };
		this.state = 'saving';
		this.fault = undefined;
		try {
			const { version, along } = await answerOf(
				() =>
					call('PUT', `/api/styles/${this.id}`, {
						version: this.savedVersion,
						from: this.first + sent.unsaved,
						at: this.first + sent.at,
						steps: sent.steps.slice(sent.unsaved).map(({ label, definition }) => ({ label, definition }))
					}),
				({ message }) => {
					this.offline = message;
					waiting.set(this.own, this);
				}
			);
			this.savedVersion = version;
			this.base = sent.steps[sent.at]!.definition;
			if (this.unsaved === sent.unsaved) {
				// What was changed meanwhile begins where the two lists part.
				const { steps } = this.line;
				let same = 0;
				while (same < steps.length && steps[same] === sent.steps[same]) same++;
				this.unsaved = same;
			}
			const { steps, at } = this.line;
			this.state = at === sent.at && this.unsaved === steps.length ? 'saved' : 'waiting';
			if (this.state === 'waiting') {
				this.keep();
				this.timer = setTimeout(() => void this.save(), REST);
			} else this.kept.set(undefined);
			if (along.length) this.onAlong?.(along);
		} catch (error) {
			this.fault = (error as Error).message;
			this.state = 'failed';
			const code = error instanceof RequestError ? error.body.code : undefined;
			if (code === 'conflict') await this.learnTheirs();
			else if (error instanceof RequestError) this.withoutRefused(error, sent.unsaved);
		} finally {
			this.offline = undefined;
			waiting.delete(this.own);
		}
	}
	/** Where that fails, the conflict comes up again with the next try. */
	private async learnTheirs(): Promise<void> {
		try {
			const theirs = await call('GET', `/api/styles/${this.id}/steps`);
			const { merged, clashes } = this.mergedWith(theirs);
			if (!clashes.length) {
				this.adopt(theirs);
				this.change(merged, 'yours, over a change in another window');
				const { by } = theirs.steps[theirs.at - theirs.first]!;
				notify(`${doerWords(by)} changed other settings of this style meanwhile; both changes are here.`);
				return;
			}
			this.theirs = theirs;
			this.clashes = clashes;
			this.state = 'conflict';
		} catch (error) {
			this.fault = (error as Error).message;
		}
	}

	/** One's own changes and those of another window, leaf by leaf. */
	private mergedWith({ steps, at, first }: DraftHistory) {
		return mergedLeaves<Style>(this.base ?? this.definition, this.definition, steps[at - first]!.definition);
	}

	/** A step that the server will not have goes; those before and after it are sent without it. */
	private withoutRefused({ body: { where, message } }: RequestError, from: number): void {
		const place = /^\/steps\/(\d+)/.exec(where ?? '')?.[1];
		const refused = place === undefined ? -1 : from + Number(place);
		const step = this.line.steps[refused];
		// The first step is what there was before.
		if (!step || refused === 0) return;
		const steps = this.line.steps.filter((_, i) => i !== refused);
		const at = this.line.at >= refused ? this.line.at - 1 : this.line.at;
		this.fault = undefined;
		this.stand({ steps, at });
		notify(`Not kept: ${step.label}. ${message}`, 'error');
	}

	/** Tries again after a failure. */
	retry(): Promise<void> {
		if (this.state !== 'failed') return this.running;
		this.state = 'waiting';
		return this.save();
	}

	/** Takes over what the server has now, its steps included; one's own steps of this window are gone unless `mine` is kept as one. */
	private adopt({ version, first, at, steps }: DraftHistory): void {
		this.savedVersion = version;
		this.first = first;
		this.line = { steps, at: at - first };
		this.unsaved = steps.length;
		this.theirs = undefined;
		this.clashes = [];
		this.base = this.definition;
		this.fault = undefined;
		this.state = 'saved';
		this.lastChange.label = '';
	}

	/** After a conflict: goes on from what the other window saved; one's own work can still be had by redo. */
	takeTheirs(): void {
		if (!this.theirs) return;
		const mine = { label: 'what this window had', definition: this.definition };
		const { merged } = this.mergedWith(this.theirs);
		this.adopt(this.theirs);
		if (!same(merged, this.definition)) this.change(merged, 'yours, over a change in another window');
		this.kept.set(undefined);
		const { at } = this.line;
		this.line = { ...pushed(this.line, mine), at };
		this.unsaved = Math.min(this.unsaved, at + 1);
	}

	/** After a conflict: saves one's own work over the other, knowingly, as one step that can be undone. */
	keepMine(): Promise<void> {
		if (!this.theirs) return Promise.resolve();
		const { mine } = this.mergedWith(this.theirs);
		this.adopt(this.theirs);
		this.change(mine, 'saved over another window’s work');
		return this.save();
	}

	/** After something outside the bench changed the style (a leaf pushed up): what is there now. */
	reload(history: DraftHistory): void {
		clearTimeout(this.timer);
		this.kept.set(undefined);
		this.adopt(history);
	}
}
