import { tick } from 'svelte';
import { invalidateAll } from '$app/navigation';
import type { Line } from '$lib/core/history.ts';
import { ONLY_TEXT, OWN_LOOK } from '$lib/core/style/bare.ts';
import { flatten, type FlatStyle } from '$lib/core/style/inherit.ts';
import { ASPECTS, type Aspect } from '$lib/core/style/types.ts';
import { isLeftOut, purposeName, type Purpose } from '$lib/core/recognise/purpose/kinds.ts';
import type { RowRole } from '$lib/core/roles/index.ts';
import type { ColumnKind } from '$lib/core/table/columns.ts';
import type { DecimalMark } from '$lib/core/values/parse.ts';
import { plural, pluralWord } from '$lib/core/words.ts';
import type { StepInfo } from '$lib/server/history.ts';
import { excerpt } from '$lib/workbench/excerpt.ts';
import type { DocumentState, TableState } from '$lib/workbench/state.ts';
import type { BookStyle, Stylebook } from '$lib/workbench/stylebook.ts';
import { stateTable, touchedTable, without } from '$lib/workbench/table.ts';
import type { DocumentTable } from '$lib/formats/document.ts';
import { call } from '../api.ts';
import { lineAt, Sender } from '../history.svelte.ts';
import { notify } from '../notices.svelte.ts';
import { tellPublished } from '../published.ts';
import { roleWords } from './roles.ts';

/** What the server has of a document: its steps, where it stands, and the state there. */
export interface Saved {
	readonly step: number;
	readonly version: number;
	readonly steps: readonly StepInfo[];
	readonly state: DocumentState;
	/** Names of styles that were published for it. */
	readonly published?: readonly string[];
}

/** Which tables a style is for. */
export type Scope = 'this' | 'alike' | 'ticked' | 'all';

/** What is about to be applied; nothing until something is chosen. */
export interface Draft {
	readonly style?: string;
	/** Nothing but text, in the place of a style. */
	readonly cleared?: boolean;
	readonly dropsEmphasis?: boolean;
	readonly partsOff?: readonly string[];
	readonly carry?: readonly Aspect[];
}

/** Nothing but text, and the look that a table came with, as styles to look at. */
const BARE = flatten(ONLY_TEXT);
const OWN = flatten(OWN_LOOK);

/** What of a state is about what its tables hold, beside what they wear. */
const heldBy = ({ tables, added, gone, file }: DocumentState) =>
	JSON.stringify([
		added,
		gone,
		file,
		Object.entries(tables).flatMap(([index, { work }]) => (work ? [[index, work]] : []))
	]);

/** What the page of a document works with besides what it shows; it may change while the page is open. */
interface Source {
	/** What tables that are recognised as forms or layout are, by index. */
	readonly leftOut: Readonly<Record<number, Purpose>>;
	readonly tables: readonly DocumentTable[];
	readonly book: Stylebook<BookStyle>;
	/** What is saved, as the page was loaded. */
	readonly saved: Saved;
}

/** The document view's state: which table is picked, what is about to be applied to which, and what is saved. */
export class DocumentView {
	saved = $state.raw() as Saved;
	picked: number = $state(0);
	scope = $state<Scope>('this');
	ticked = $state<number[]>([]);
	draft = $state.raw<Draft>({});
	/** The style that is pointed at. */
	pointed = $state<string>();
	/** The tables that look like the picked one in the file, once they are known. */
	alike = $state.raw<readonly number[]>([]);
	readonly sender: Sender;

	constructor(
		readonly id: string,
		saved: Saved,
		private readonly source: () => Source
	) {
		this.saved = saved;
		this.picked = this.first;
		this.sender = Sender.of(`/documents/${id}`, {
			needs: 'author',
			line: () => this.line,
			version: () => this.saved.version,
			orderTo: (to) => ({ path: `/api/documents/${id}/step`, body: { version: this.saved.version, to } }),
			take: (answer) => this.take(answer as Saved),
			drop: () => (this.draft = {}),
			renew: () => this.renew(),
			keepsTried: true
		});
	}

	/** Takes what the server has now, whatever it is. */
	async renew(): Promise<void> {
		await invalidateAll();
		// Until the page has handed on what it got.
		await tick();
		this.saved = this.source().saved;
		if (!(this.picked in this.tables)) this.picked = this.first;
	}

	/** By their index; of a long document only those of the part that is shown. */
	get tables(): readonly DocumentTable[] {
		return this.source().tables;
	}
	/** The first table that is shown. */
	private get first(): number {
		return Number(Object.keys(this.tables)[0] ?? 0);
	}
	/** The indices of all tables of the document. */
	get all(): number[] {
		return Array.from(this.tables, (_, index) => index);
	}
	/** What a table of the document is for; what is neither form nor layout is data to whoever asks here. */
	purposeAt(index: number): Purpose {
		return this.stateOf(index).purpose ?? this.source().leftOut[index] ?? 'data';
	}
	/** Forms and layout tables are taken into the scope of all. */
	takesAll = $state(false);
	/** The tables that the scope of all leaves as they are. */
	readonly leftOut: readonly number[] = $derived(this.all.filter((index) => isLeftOut(this.purposeAt(index))));
	/** The tables of the scope of all. */
	readonly whole: readonly number[] = $derived(
		this.takesAll ? this.all : this.all.filter((index) => !this.leftOut.includes(index))
	);
	get book(): Stylebook<BookStyle> {
		return this.source().book;
	}
	get line(): Line<StepInfo> {
		return lineAt(this.saved.steps, this.saved.step);
	}
	get entry(): DocumentTable {
		return this.tables[this.picked]!;
	}
	stateOf(index: number): TableState {
		return this.saved.state.tables[index] ?? {};
	}
	/** The picked table's state. */
	get own(): TableState {
		return this.stateOf(this.picked);
	}

	readonly scoped: readonly number[] = $derived(
		this.scope === 'this'
			? [this.picked]
			: this.scope === 'all'
				? this.whole
				: this.scope === 'alike'
					? this.alike
					: this.ticked
	);
	/** The tables of the scope besides the picked one. */
	readonly others: readonly number[] = $derived(this.scoped.filter((index) => index !== this.picked));
	readonly wornStyle: BookStyle | undefined = $derived(this.book.get(this.own.style));
	/** The newest edition of the style that the picked table wears. */
	readonly newest: number | undefined = $derived(this.wornStyle?.edition ?? undefined);
	readonly isCleared: boolean = $derived(
		this.draft.cleared ?? (this.draft.style === undefined && this.own.cleared === true)
	);
	/** The style that the picked table wears or is about to. */
	readonly chosen: string | undefined = $derived(this.isCleared ? undefined : (this.draft.style ?? this.own.style));
	readonly dropsEmphasis: boolean = $derived(this.draft.dropsEmphasis ?? this.own.dropsEmphasis ?? false);
	readonly partsOff: readonly string[] = $derived(
		this.draft.partsOff ?? this.own.partsOff ?? this.entry.table.partsOff
	);
	readonly carry: readonly Aspect[] = $derived(this.draft.carry ?? this.own.carry ?? this.entry.table.carry);
	/** Whether there is something to apply. */
	readonly isDirty: boolean = $derived(
		this.draft.style !== undefined ||
			this.draft.cleared === true ||
			((this.draft.partsOff !== undefined ||
				this.draft.carry !== undefined ||
				this.draft.dropsEmphasis !== undefined) &&
				(this.chosen !== undefined || this.isCleared))
	);
	readonly pickedTable = $derived(stateTable(this.entry, this.own));
	/** Some rows of the picked table, for pictures of styles. */
	readonly sample = $derived(excerpt(this.pickedTable, this.entry.content, 8));
	/** What the picked table would be, in words. */
	readonly afterWords: string = $derived(
		this.pointed === undefined && this.isCleared
			? 'nothing but text'
			: (this.book.get(this.pointed ?? this.chosen)?.definition.name ?? 'as it came')
	);

	/** Asks which tables look like the picked one. */
	async findAlike(): Promise<void> {
		const asked = this.picked;
		const found = await call('GET', `/api/documents/${this.id}/alike?table=${asked}`).catch(() => [asked]);
		if (asked === this.picked) this.alike = found;
	}

	/** A table as it is to be shown: what is pointed at first, then what is about to be applied, then what it wears. */
	shown(index: number): { state: TableState; style: FlatStyle | undefined } {
		const { draft, pointed, book } = this;
		const own = this.stateOf(index);
		const isSaved = !this.scoped.includes(index) || (pointed === undefined && !this.isDirty);
		const clears = isSaved
			? own.cleared
			: pointed === undefined && (draft.cleared ?? (own.cleared && draft.style === undefined));
		const state: TableState = {
			...own,
			...(!isSaved && draft.partsOff && { partsOff: draft.partsOff }),
			...(!isSaved && draft.carry && { carry: draft.carry }),
			...(!isSaved && draft.dropsEmphasis !== undefined && { dropsEmphasis: draft.dropsEmphasis })
		};
		if (clears) return { state: { ...state, carry: ASPECTS, partsOff: [], touches: [] }, style: BARE };
		if (isSaved) {
			const style = (own.style === this.trying ? book.draft(own.style) : undefined) ?? book.worn(own);
			const touched = style ? undefined : touchedTable(this.tables[index]!, own);
			return touched ? { state: { ...state, carry: [], partsOff: [] }, style: OWN } : { state, style };
		}
		const style = pointed ?? draft.style ?? own.style ?? this.chosen;
		// Only what is newly chosen is shown in its newest edition.
		const isNew = pointed !== undefined || draft.style !== undefined || own.style === undefined;
		return { state, style: isNew && style !== undefined ? book.worn(book.wearing(style)) : book.worn(own) };
	}

	pick(index: number): void {
		if (this.picked === index) return;
		this.picked = index;
		if (this.scope === 'this') this.draft = {};
	}
	tick(index: number): void {
		const { ticked } = this;
		this.ticked = ticked.includes(index)
			? ticked.filter((other) => other !== index)
			: [...ticked, index].sort((a, b) => a - b);
		this.scope = 'ticked';
	}

	/** The style whose tables are shown in its draft, without keeping that. */
	trying: string | undefined = $state();
	tryDraft(): void {
		this.trying = this.trying === this.own.style ? undefined : this.own.style;
	}

	private async take(answer: Saved): Promise<void> {
		const before = heldBy(this.saved.state);
		this.saved = answer;
		await tellPublished(answer.published);
		if (heldBy(answer.state) === before) return;
		// Other work or another number of tables stands now.
		this.picked = this.first;
		this.ticked = [];
		await invalidateAll();
	}
	/** Saves a step: what some tables are from now on, given what they are when it is sent. Returns whether it was saved. */
	step(
		label: string,
		indices: readonly number[],
		next: (own: TableState, index: number) => TableState,
		again?: () => unknown
	): Promise<boolean> {
		return this.sender.send(
			() => ({
				label,
				method: 'POST',
				path: `/api/documents/${this.id}/steps`,
				body: {
					version: this.saved.version,
					label,
					tables: Object.fromEntries(indices.map((index) => [index, next(this.stateOf(index), index)]))
				}
			}),
			again
		);
	}

	/** Applies what is chosen to the tables of the scope. */
	async apply(): Promise<void> {
		const { scoped, isCleared: clears, draft } = this;
		if (!this.isDirty || scoped.length === 0) return;
		const { style, partsOff, carry, dropsEmphasis } = draft;
		const what = clears ? 'nothing but text' : this.book.get(this.chosen)!.definition.name;
		const wanted = style ?? this.chosen;
		const worn = wanted !== undefined && this.book.wearing(wanted);
		const applied = (own: TableState): TableState => ({
			...(clears
				? { ...without(own, 'style', 'edition', 'pinned', 'partsOff', 'carry', 'touches'), cleared: true }
				: style === undefined && own.style !== undefined
					? own
					: { ...without(own, 'edition', 'pinned', 'cleared'), ...worn }),
			...(partsOff && !clears && { partsOff: [...partsOff] }),
			...(carry && !clears && { carry: [...carry] }),
			...(dropsEmphasis !== undefined && { dropsEmphasis })
		});
		const count = scoped.length;
		const label = `${what} on ${pluralWord(count, `table ${scoped[0]! + 1}`, `${count} tables`)}`;
		if (!(await this.step(label, scoped, applied, () => this.apply()))) return;
		this.draft = {};
		const words = clears
			? `${pluralWord(count, 'One table has', `${count} tables have`)} nothing but text now.`
			: `${pluralWord(count, 'One table wears', `${count} tables wear`)} “${what}” now.`;
		notify(`${words} Ctrl+Z takes it back.`);
	}
	/** Gives other tables what the picked one has: their states by index. */
	async match(changed: Readonly<Record<number, TableState>>): Promise<void> {
		const like = this.picked + 1;
		const indices = Object.keys(changed).map(Number);
		const count = indices.length;
		const label = `like table ${like}: ${plural(count, 'table')}`;
		if (
			!(await this.step(
				label,
				indices,
				(_, index) => changed[index]!,
				() => this.match(changed)
			))
		)
			return;
		notify(`${pluralWord(count, 'One table is', `${count} tables are`)} like table ${like} now. Ctrl+Z takes it back.`);
	}
	/** Takes the picked table out of the document. */
	async takeOut(): Promise<void> {
		const index = this.picked;
		const isOut = await this.sender.send(() => ({
			label: `table ${index + 1} taken out`,
			method: 'DELETE',
			path: `/api/documents/${this.id}/tables/${index}`,
			body: { version: this.saved.version }
		}));
		if (isOut) notify(`Table ${index + 1} is out of the document. Ctrl+Z brings it back.`);
	}

	/** Puts tables right by a rule of the house. */
	async mend(rule: string, does: string, tables: readonly number[]): Promise<void> {
		const isDone = await this.sender.send(() => ({
			label: `policy: ${rule}`,
			method: 'POST',
			path: `/api/documents/${this.id}/policy`,
			body: { version: this.saved.version, rule, tables }
		}));
		if (isDone) notify(`${does}: ${plural(tables.length, 'table')}. Ctrl+Z takes it back.`);
	}

	/** Whether the picked table stays with its edition when a newer one is rolled out. */
	pin(pinned: boolean): Promise<boolean> {
		const label = `table ${this.picked + 1} ${pinned ? 'stays with its edition' : 'follows'}`;
		return this.step(label, [this.picked], (own) => (pinned ? { ...own, pinned } : without(own, 'pinned')));
	}
	takeNewest(): Promise<boolean> {
		const worn = this.book.wearing(this.wornStyle!.id);
		return this.step(`table ${this.picked + 1}: edition ${this.newest}`, [this.picked], (own) => ({ ...own, ...worn }));
	}
	dropTouches(): Promise<boolean> {
		return this.step(`touches of table ${this.picked + 1} taken off`, [this.picked], (own) => without(own, 'touches'));
	}
	/** For a table whose state cannot be read: it is as its file has it again. */
	beginAnew(index: number): Promise<boolean> {
		return this.step(`table ${index + 1} begun anew`, [index], () => ({}));
	}

	correctRole(r: number, role: RowRole): Promise<boolean> {
		return this.step(`row ${r + 1} of table ${this.picked + 1} is ${roleWords(role)}`, [this.picked], (own) => ({
			...own,
			roles: { ...own.roles, [r]: role }
		}));
	}
	correctKind(c: number, kind: ColumnKind): Promise<boolean> {
		return this.step(`column ${c + 1} of table ${this.picked + 1} is ${kind}`, [this.picked], (own) => ({
			...own,
			kinds: { ...own.kinds, [c]: kind }
		}));
	}
	correctPurpose(purpose: Purpose): Promise<boolean> {
		return this.step(`table ${this.picked + 1} is ${purposeName(purpose)}`, [this.picked], (own) => ({
			...own,
			purpose
		}));
	}
	correctMark(mark: DecimalMark): Promise<boolean> {
		const words = mark === '.' ? 'point' : 'comma';
		return this.step(`table ${this.picked + 1}: a decimal ${words}`, [this.picked], (own) => ({ ...own, mark }));
	}
	correctEnds(which: 'firstColumns' | 'lastColumns', count: number): Promise<boolean> {
		const words = `${which === 'firstColumns' ? 'first' : 'last'} ${pluralWord(count, 'column')}`;
		return this.step(`table ${this.picked + 1}: ${count} ${words}`, [this.picked], (own) => ({
			...own,
			[which]: count
		}));
	}
}
