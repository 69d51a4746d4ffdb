import type { Style } from '$lib/core/style/types.ts';
import { call, RequestError } from '../api.ts';

export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict';

/** A style as it is being worked on: its history for undo and redo, and saving as one goes, never over somebody else's work. */
export class StyleDraft {
	definition: Style = $state.raw({} as Style);
	state: SaveState = $state('saved');
	fault: string | undefined = $state();
	/** What somebody else saved in the meantime. */
	theirs: { version: number; definition: Style } | undefined = $state.raw();
	private past: Style[] = $state.raw([]);
	private future: Style[] = $state.raw([]);
	private version: number;
	private timer: ReturnType<typeof setTimeout> | undefined;
	private running: Promise<void> = Promise.resolve();

	constructor(
		readonly id: string,
		version: number,
		definition: Style
	) {
		this.version = version;
		this.definition = definition;
	}

	get canUndo(): boolean {
		return this.past.length > 0;
	}
	get canRedo(): boolean {
		return this.future.length > 0;
	}

	change(definition: Style): void {
		this.past = [...this.past.slice(-199), this.definition];
		this.future = [];
		this.set(definition);
	}
	undo(): void {
		const before = this.past.at(-1);
		if (!before) return;
		this.past = this.past.slice(0, -1);
		this.future = [this.definition, ...this.future];
		this.set(before);
	}
	redo(): void {
		const [next, ...rest] = this.future;
		if (!next) return;
		this.past = [...this.past, this.definition];
		this.future = rest;
		this.set(next);
	}

	private set(definition: Style): void {
		this.definition = definition;
		if (this.state === 'conflict') return;
		this.state = 'waiting';
		clearTimeout(this.timer);
		this.timer = setTimeout(() => void this.save(), 400);
	}

	/** Saves now what is not saved yet; one request at a time. */
	save(): Promise<void> {
		clearTimeout(this.timer);
		this.running = this.running.then(() => this.send());
		return this.running;
	}

	private async send(): Promise<void> {
		if (this.state === 'saved' || this.state === 'conflict') return;
		const sent = this.definition;
		this.state = 'saving';
		this.fault = undefined;
		try {
			const { version } = await call<{ version: number }>('PUT', `/api/styles/${this.id}`, {
				version: this.version,
				definition: sent
			});
			this.version = version;
			this.state = this.definition === sent ? 'saved' : 'waiting';
			if (this.state === 'waiting') this.timer = setTimeout(() => void this.save(), 400);
		} catch (error) {
			this.fault = (error as Error).message;
			if (error instanceof RequestError && error.body.code === 'conflict') {
				this.theirs = error.body.current as { version: number; definition: Style };
				this.state = 'conflict';
			} else this.state = 'failed';
		}
	}

	/** After a conflict: goes on from what the other window saved; one's own work can still be had by undo. */
	takeTheirs(): void {
		if (!this.theirs) return;
		this.past = [...this.past, this.definition];
		this.version = this.theirs.version;
		this.definition = this.theirs.definition;
		this.theirs = undefined;
		this.state = 'saved';
	}

	/** After a conflict: saves one's own work over the other, knowingly. */
	keepMine(): Promise<void> {
		if (!this.theirs) return Promise.resolve();
		this.version = this.theirs.version;
		this.theirs = undefined;
		this.state = 'waiting';
		return this.save();
	}
}
