import type { CellClash } from '$lib/core/work/merge.ts';
import { dateOrder, markDoubt, markOf } from '$lib/core/work/marks.ts';
import { pluralWord } from '$lib/core/words.ts';
import { moved, pushed, type Line } from '$lib/core/history.ts';
import { tick } from 'svelte';
import { appearanceOf, type Appearance } from '$lib/core/cascade/look.ts';
import { resolve, type Resolved } from '$lib/core/cascade/resolve.ts';
import { flatten } from '$lib/core/style/inherit.ts';
import { ASPECTS, type Aspect, type LineSettings, type Style } from '$lib/core/style/types.ts';
import type { CellContent, CellPicture } from '$lib/core/table/content.ts';
import { behaviour, type RowRole } from '$lib/core/roles/index.ts';
import { type ColumnKind } from '$lib/core/table/columns.ts';
import type { Table } from '$lib/core/table/grid.ts';
import { formatOf, formatValue, type Format } from '$lib/core/values/format.ts';
import { typed } from '$lib/core/work/cells.ts';
import { withKinds } from '$lib/core/work/begin.ts';
import { dependents, workedOut, workedOutBy } from '$lib/core/work/working.ts';
import { reachOf, selectedFigures } from '$lib/core/work/selected.ts';
import { wrongSums } from '$lib/core/work/sums.ts';
import { fileLook, type FileLook } from '$lib/core/work/file-look.ts';
import { applyPatch } from '$lib/core/work/patch.ts';
import {
	cellsIn,
	everything,
	fitted,
	oneCell,
	rangeOf,
	whole,
	type Range,
	type Selection
} from '$lib/core/work/selection.ts';
import { valueOf } from '$lib/core/work/sort.ts';
import {
	anchorOf,
	cellOf,
	contentOfCell,
	isCovered,
	shownIn,
	textOfContent,
	tidy,
	withCells,
	type Wears,
	type WorkCell,
	type Position,
	type WorkTable
} from '$lib/core/work/table.ts';
import { tableOf } from '$lib/core/work/convert.ts';
import { forbids, guard } from '$lib/core/work/locks.ts';
import { copiedLook, lined, touched, type CopiedLook, type Edge } from '$lib/core/work/touches.ts';
import { withColumnNamed } from '$lib/core/values/formula.ts';
import type { LoadedWork } from '$lib/server/tables/work.ts';
import type { HouseState } from '$lib/workbench/house.ts';
import type { TableState } from '$lib/workbench/state.ts';
import { Stylebook, type BookStyle } from '$lib/workbench/stylebook.ts';
import type { Place } from '$lib/workbench/use.ts';
import type { Pen } from '../style-bench/bench.svelte.ts';
import { notify, notifyError } from '../notices.svelte.ts';
import { doerWords, isRefused, ownName } from '../people/who.ts';
import { entriesOf, laidOver, Saving, type Entry, type Loaded, type Mine } from './saving.svelte.ts';

export interface BenchData {
	readonly id: string;
	readonly index: number;
	/** Of its document. */
	readonly kind: string;
	readonly work: LoadedWork;
	readonly wears: TableState;
	readonly fileLook: FileLook | undefined;
	readonly styles: readonly BookStyle[];
	readonly older: Readonly<Record<string, Style>>;
	readonly house: HouseState;
}

/** A table that wears no style: touches alone speak, over what its file says. */
const NO_STYLE = flatten({ format: 'heptarch-style', version: 1, name: 'no style', parts: {} });

/** How large a table can be shown. */
const ZOOMS = [0.5, 0.67, 0.8, 1, 1.25, 1.5, 2] as const;

/** Where a cell is being typed in, and what it began with: its own words, or a first letter in their place. */
export interface Typing {
	readonly r: number;
	readonly c: number;
	readonly begin: string | undefined;
	/** The table as it was when typing began: somebody else may change it meanwhile. */
	readonly from: WorkTable;
	/** Its row, wherever that goes. */
	readonly row: number;
}

export type Panel = 'shape' | 'look' | 'figures' | 'find' | 'steps';

/** Something to be answered first. */
export interface Question {
	readonly words: string;
	readonly answers: readonly (readonly [words: string, run: () => unknown])[];
}

/** The table bench: one table being worked on, what of it is selected, and how it looks in its style. */
export class TableBench {
	readonly id: string;
	readonly index: number;
	/** Its document, for which styles are offered. */
	private place: Place | undefined = $state.raw();
	readonly saving: Saving;
	private fileLook: FileLook | undefined = $state.raw();
	private older: Readonly<Record<string, Style>> = $state.raw({});

	/** The steps of the work. */
	line: Line<Entry> = $state.raw({ steps: [], at: 0 });
	styles: readonly BookStyle[] = $state.raw([]);
	house: HouseState = $state.raw({} as HouseState);

	selection: Selection = $state.raw({} as Selection);
	typing: Typing | undefined = $state.raw();
	private typedSoFar: readonly CellContent[] | undefined;
	panel: Panel = $state('shape');
	isDrawing = $state(false);
	/** How large the table is shown; 1 for its own size. */
	zoom = $state(1);
	/** Marks of touches, locks and what is worked out. */
	marks = $state(true);
	pen: Pen = $state.raw({ draws: 'line', pattern: 'solid', weight: '0.35mm', ink: 'loam' });
	/** A look that was copied, to be put on other cells. */
	copied: CopiedLook | undefined = $state.raw();
	/** What was done here while somebody else changed the same; a decision is waited for. */
	mine: WorkTable | undefined = $state.raw();
	/** Who changed the table elsewhere last. */
	other = $state('Another window');
	/** The cells in which the two differ, where they go together otherwise. */
	clashes: readonly CellClash[] = $state.raw([]);
	/** Cells that a search found. */
	lit: ReadonlySet<string> = $state.raw(new Set());

	readonly entry: Entry = $derived(this.line.steps[this.line.at]!);
	readonly work: WorkTable = $derived(this.entry.work);
	readonly wears: Wears = $derived(this.work.wears ?? {});
	readonly book = $derived(new Stylebook(this.styles, this.house, this.older, this.place));
	readonly flat = $derived(this.wears.cleared ? undefined : this.book.worn(this.wears));
	readonly table: Table = $derived.by(() => {
		const carry = this.flat ? (this.wears.carry ?? ASPECTS) : NOTHING;
		return { ...tableOf(this.work), partsOff: this.wears.partsOff ?? NOTHING_OFF, carry };
	});
	private lastResolved: Resolved | undefined;
	/** Where only words changed, and no rule of the style looks at them, the look is what it was. */
	readonly resolved: Resolved = $derived.by(() => {
		const { table, house } = this;
		const style = this.flat ?? NO_STYLE;
		const before = this.lastResolved;
		const isSame =
			before?.style === style &&
			before.house === house &&
			!style.rules.length &&
			looksAlike(before.structure.table, table);
		return (this.lastResolved = isSame ? before : resolve(table, style, house));
	});
	readonly appearance: Appearance = $derived(
		appearanceOf(
			this.resolved,
			this.fileLook && this.table.carry.length < ASPECTS.length ? fileLook(this.work, this.fileLook) : undefined
		)
	);
	readonly inks = $derived({ ...this.house.inks, ...Object.fromEntries(this.flat?.inks ?? []) });
	readonly roles = $derived([
		...new Set([...Object.keys(this.house.typeRoles), ...(this.flat?.typeRoles.keys() ?? [])])
	]);
	/** The cell that is pointed at; what its sum covers lights up, else that of the focused cell. */
	pointed: Position | undefined = $state.raw();
	readonly reach = $derived.by(() => {
		const { r, c } = this.pointed ?? this.selection.focus;
		return reachOf(this.work, r, c);
	});
	readonly problems = $derived(workedOut(this.work).problems);
	readonly problemAt = $derived(new Map(this.problems.map((one) => [`${one.r},${one.c}`, one])));
	/** A figure that could be read in two ways. */
	readonly doubt = $derived(markDoubt(this.work));
	readonly wrong = $derived(wrongSums(this.work));
	readonly wrongAt = $derived(new Map(this.wrong.map((one) => [`${one.r},${one.c}`, one])));
	readonly cells = $derived(cellsIn(this.work, this.selection.ranges));
	/** What the selected cells make together. */
	readonly together = $derived(this.cells.length > 1 ? selectedFigures(this.work, this.cells) : []);
	readonly range: Range = $derived(this.selection.ranges.at(-1)!);
	/** Columns whose figures come from the column that is selected. */
	readonly dependents: ReadonlySet<number> = $derived(dependents(this.work, this.selection.focus.c));
	private readonly formats = $derived(this.resolved.leaves.map((leaves) => formatOf(leaves)));

	constructor(data: BenchData) {
		const { id, index, kind, work, wears, styles, older, house, fileLook } = data;
		this.id = id;
		this.place = { id, kind };
		this.index = index;
		this.fileLook = fileLook;
		this.older = older;
		this.styles = styles;
		this.house = house;
		this.line = { steps: entriesOf(work, wears), at: work.at };
		this.selection = oneCell(this.work, 0, 0);
		this.saving = new Saving(`/api/documents/${id}/tables/${index}/work`, this.entry, {
			came: (loaded, mine) => this.takeTheirs(loaded, mine),
			refused: (entries, label, why) => this.takeBack(entries, label, why)
		});
	}

	/** Puts back what a browser that went down had not saved. */
	async recover(): Promise<void> {
		const copied = sessionStorage.getItem(COPIED);
		if (copied) this.copied = JSON.parse(copied) as CopiedLook;
		const kept = await this.saving.kept();
		if (!kept) return;
		try {
			for (const { label, patch } of kept.changes) this.push(label, applyPatch(this.work, patch));
			if (kept.changes.length) notify('Work that was not saved last time is here again.');
			const { typing } = kept;
			if (!typing) return;
			const r = this.work.rows.findIndex(({ id }) => id === typing.row);
			if (r < 0 || typing.column >= this.work.columns.length) return;
			this.select(r, typing.column);
			this.type(typing.text);
		} catch (error) {
			notifyError(error);
		}
	}

	/* ---- questions ---- */

	/** What has to be answered before something is done; the last answer is the one that goes on with it. */
	question: Question | undefined = $state.raw();
	ask(words: string, answers: readonly (readonly [words: string, run: () => unknown])[]): void {
		this.question = { words, answers };
	}
	answer(run: () => unknown): void {
		this.question = undefined;
		run();
	}

	/* ---- edits ---- */

	/** Changes the table as one step. What cannot be done is said, and nothing changes. */
	edit(label: string, change: (work: WorkTable) => WorkTable): boolean {
		if (isRefused('author')) return false;
		// Work goes on while it is not decided yet which of two changes is to stand: it is part of both.
		if (this.mine) this.mine = orSame(this.mine, (mine) => workedOut(withKinds(change(mine), mine)).work);
		try {
			const next = workedOut(withKinds(change(this.work), this.work)).work;
			if (next !== this.work) this.push(label, this.named(next));
			if (this.mine) this.saving.hold(this.mine);
			return true;
		} catch (error) {
			notifyError(error);
			return false;
		}
	}
	/** Formulas go along with the name of a column that was changed. */
	private named(next: WorkTable): WorkTable {
		if (next.columns.length !== this.work.columns.length || !next.columns.some(({ formula }) => formula)) return next;
		const before = tableOf(this.work).columnInfo;
		const after = tableOf(next).columnInfo;
		let { columns } = next;
		before.forEach(({ name }, c) => {
			const now = after[c]!.name;
			if (!name || !now || name === now || after.some((one) => one.name === name)) return;
			columns = columns.map((column) =>
				column.formula ? { ...column, formula: withColumnNamed(column.formula, name, now) } : column
			);
		});
		return columns === next.columns ? next : workedOut({ ...next, columns }).work;
	}
	private push(label: string, work: WorkTable): void {
		const before = this.entry;
		const entry: Entry = { label, work, id: undefined, by: ownName(), when: new Date().toISOString() };
		this.line = pushed(this.line, entry, MOST_ENTRIES);
		this.selection = fitted(work, this.selection);
		this.saving.add(entry, before);
	}
	/** Undo, redo, or any step of the list. */
	goTo(at: number): void {
		const line = moved(this.line, at);
		if (line === this.line || isRefused('author')) return;
		this.typing = undefined;
		this.line = line;
		this.selection = fitted(this.work, this.selection);
		this.saving.move(this.entry);
	}

	/** A change that the server will not have is gone; those after it stand without it. */
	private takeBack(entries: readonly Entry[], label: string, why: string): void {
		const known = this.line.steps.findLastIndex(({ id }) => id !== undefined);
		this.line = { steps: this.line.steps.slice(0, known + 1), at: known };
		this.selection = fitted(this.work, this.selection);
		this.saving.restart(this.entry);
		for (const { label, work } of entries) this.push(label, work);
		notify(`Not kept: ${label}. ${why}`, 'error');
	}
	private takeTheirs(loaded: Loaded, mine?: Mine): void {
		const before = this.work;
		this.other = doerWords(loaded.by);
		this.line = { steps: entriesOf(loaded, loaded.wears), at: loaded.at };
		this.selection = fitted(this.work, this.selection);
		this.saving.restart(this.entry);
		if (mine) this.takeMine(mine, before);
		else {
			this.hold(undefined, [], before);
			const { label, by } = this.entry;
			notify(`${this.other}${by === loaded.by ? '' : ' went back to'}: ${label}`);
		}
		this.followTyping();
	}
	/** Puts what was done here over what somebody else did. `before` is what stood when anything undecided was last looked at. */
	private takeMine({ merged, undecided, clashes }: Mine, before: WorkTable): void {
		if (merged && JSON.stringify(merged) !== JSON.stringify(this.work))
			this.push('yours, over a change in another window', merged);
		if (merged && !undecided) notify(`${this.other} changed other cells meanwhile; both changes are here.`);
		this.hold(undecided, clashes, before);
	}
	/** Keeps what has to be decided beside what is undecided already, and that as a change of what stands now. */
	private hold(undecided: WorkTable | undefined, clashes: readonly CellClash[], before: WorkTable): void {
		let mine = undecided;
		if (this.mine) {
			const over = laidOver(before, this.mine, undecided ?? this.work);
			mine = over.undecided ?? over.merged;
		}
		if (!mine) return;
		const rows = new Map(this.work.rows.map(({ id }, r) => [id, r]));
		const earlier = this.clashes.flatMap((clash) => {
			const r = rows.get(before.rows[clash.r]!.id);
			return r === undefined || clashes.some((one) => one.r === r && one.c === clash.c) ? [] : [{ ...clash, r }];
		});
		this.clashes = [...earlier, ...clashes];
		this.mine = { ...mine, nextId: Math.max(mine.nextId, this.work.nextId) };
		this.saving.hold(this.mine);
	}
	/** Decides between what another window did and what was done here; either can be gone back to. */
	decide(which: 'mine' | 'theirs'): void {
		const { mine } = this;
		this.mine = undefined;
		this.clashes = [];
		this.saving.hold(undefined);
		if (which === 'mine' && mine) this.push('yours, instead of the change in another window', mine);
	}

	/** Shows the table larger or smaller by some steps. */
	zoomBy(steps: number): void {
		const at = ZOOMS.findIndex((zoom) => zoom >= this.zoom);
		this.zoom = ZOOMS[Math.min(Math.max(at + steps, 0), ZOOMS.length - 1)]!;
	}

	/* ---- selecting ---- */

	select(r: number, c: number): void {
		this.selection = oneCell(this.work, r, c);
	}
	/** Leads the last range to another slot. */
	extend(r: number, c: number): void {
		const { ranges, anchor } = this.selection;
		const range = whole(this.work, rangeOf(anchor, { r, c }));
		this.selection = { ranges: [...ranges.slice(0, -1), range], anchor, focus: { r, c } };
	}
	/** Begins another range. */
	addRange(range: Range): void {
		const place = { r: range.top, c: range.start };
		this.selection = { ranges: [...this.selection.ranges, whole(this.work, range)], anchor: place, focus: place };
	}
	selectRanges(ranges: readonly Range[]): void {
		const [first] = ranges;
		if (!first) return;
		const place = { r: first.top, c: first.start };
		this.selection = { ranges, anchor: place, focus: place };
	}
	selectAll(): void {
		this.selection = { ...this.selection, ranges: [everything(this.work)] };
	}
	selectRows(from: number, to: number, how: 'new' | 'more' = 'new'): void {
		const range = whole(this.work, {
			top: Math.min(from, to),
			bottom: Math.max(from, to),
			start: 0,
			end: this.work.columns.length - 1
		});
		const before = how === 'more' ? this.selection.ranges : [];
		this.selection = { ranges: [...before, range], anchor: { r: from, c: 0 }, focus: { r: from, c: 0 } };
	}
	selectColumns(from: number, to: number, how: 'new' | 'more' = 'new'): void {
		const range = whole(this.work, {
			top: 0,
			bottom: this.work.rows.length - 1,
			start: Math.min(from, to),
			end: Math.max(from, to)
		});
		const before = how === 'more' ? this.selection.ranges : [];
		this.selection = { ranges: [...before, range], anchor: { r: 0, c: from }, focus: { r: 0, c: from } };
	}

	/* ---- typing ---- */

	/** Opens the focused cell for typing; `begin` takes the place of its words. */
	type(begin?: string): void {
		if (isRefused('author')) return;
		const { r, c } = anchorOf(this.work, this.selection.focus.r, this.selection.focus.c);
		const cell = cellOf(this.work, r, c);
		if (forbids(cell.lock, 'content')) {
			notify('This cell is locked against typing. Unlock it under Shape.', 'error');
			return;
		}
		const why = workedOutBy(this.work, r, c);
		if (why) {
			notify(`This cell is worked out ${why}. Change that under Figures.`, 'error');
			return;
		}
		this.select(r, c);
		this.typing = { r, c, begin, from: this.work, row: this.work.rows[r]!.id };
	}
	/** Takes what was typed. What somebody else did to the table meanwhile is as if both had done it at once. */
	takeTyped(content: readonly CellContent[]): void {
		const { typing } = this;
		// Of whoever may no more, what was typed stays in its cell.
		if (!typing || isRefused('author')) return;
		this.dropTyped();
		const { r, c, from, row } = typing;
		const put = (work: WorkTable, at: number) => {
			const inner = contentOfCell(cellOf(work, at, c)).filter((piece) => 'nested' in piece);
			return typed(work, at, c, [...content, ...inner]);
		};
		if (from === this.work) {
			this.edit(`typed in row ${r + 1}, column ${c + 1}`, (work) => put(work, r));
			return;
		}
		const mine = put(
			from,
			from.rows.findIndex(({ id }) => id === row)
		);
		if (mine !== from) this.takeMine(laidOver(from, workedOut(withKinds(mine, from)).work, this.work), this.work);
	}
	dropTyped(): void {
		this.typing = undefined;
		this.typedSoFar = undefined;
		this.saving.keepTyping(undefined);
	}
	/** Keeps what is being typed, should the browser go down. */
	keepTyping(content: readonly CellContent[]): void {
		const { typing } = this;
		if (!typing) return;
		this.typedSoFar = content;
		this.saving.keepTyping({ row: typing.row, column: typing.c, text: textOfContent(content) });
	}
	/** The cell goes on being typed in where it is now; where it is no more, what was typed so far is taken. */
	private followTyping(): void {
		const { typing } = this;
		if (!typing) return;
		const { c, row, from } = typing;
		const r = this.work.rows.findIndex(({ id }) => id === row);
		const isThere = r >= 0 && from.columns.length === this.work.columns.length;
		if (isThere && !isCovered(this.work.rows[r]!.cells[c]!)) {
			this.typing = { ...typing, r };
			this.select(r, c);
		} else if (this.typedSoFar) this.takeTyped(this.typedSoFar);
		else this.dropTyped();
	}

	/* ---- roles, kinds, looks ---- */

	setRole(rows: ReadonlySet<number>, role: RowRole): void {
		this.edit(`${pluralWord(rows.size, `row ${[...rows][0]! + 1} is`, `${rows.size} rows are`)} ${role}`, (work) => ({
			...work,
			rows: work.rows.map((row, r) => (rows.has(r) && row.role !== role ? { ...row, role } : row))
		}));
	}
	setKind(columns: ReadonlySet<number>, kind: ColumnKind): void {
		this.edit(
			`${pluralWord(columns.size, `column ${[...columns][0]! + 1} is`, `${columns.size} columns are`)} ${kind}`,
			(work) => ({
				...work,
				columns: work.columns.map((column, c) =>
					columns.has(c) ? tidy({ ...column, kind, isGuessed: undefined }) : column
				)
			})
		);
	}
	setColumns(
		label: string,
		columns: ReadonlySet<number>,
		change: (column: WorkTable['columns'][number], c: number) => WorkTable['columns'][number]
	): void {
		this.edit(label, (work) => ({
			...work,
			columns: work.columns.map((column, c) => (columns.has(c) ? tidy(change(column, c)) : column))
		}));
	}
	/** Copies a look, for cells of this table or of any other that is opened in this window. */
	copyLook(): void {
		this.copied = copiedLook(this.work, this.selection.focus.r, this.selection.focus.c);
		sessionStorage.setItem(COPIED, JSON.stringify(this.copied));
	}
	/** Draws with the pen on some edges. */
	draw(edges: readonly Edge[]): void {
		if (!edges.length) return;
		const { pen } = this;
		const line: LineSettings | null =
			pen.draws === 'line'
				? { pattern: pen.pattern as NonNullable<LineSettings['pattern']>, weight: pen.weight, ink: pen.ink }
				: pen.draws === 'none'
					? { pattern: 'none' }
					: null;
		const words =
			pen.draws === 'line' ? `${pen.pattern} line` : pen.draws === 'none' ? 'no line' : 'line as the style has it';
		this.edit(`${words} on ${pluralWord(edges.length, 'an edge', `${edges.length} edges`)}`, (work) =>
			lined(work, edges, line)
		);
	}

	/** Gives the table another style, or wears it otherwise. */
	wear(label: string, wears: Wears): void {
		this.edit(label, ({ wears: _, ...work }) =>
			Object.keys(tidy(wears)).length ? { ...work, wears: tidy(wears) } : work
		);
	}
	drawDiagonal(place: 'diagonalDown' | 'diagonalUp'): void {
		const { pen, cells } = this;
		const isLine = pen.draws === 'line';
		const pattern = isLine ? pen.pattern : pen.draws === 'none' ? 'none' : undefined;
		this.edit('diagonals', (work) =>
			touched(work, cells, [
				[`lines.${place}.pattern`, pattern],
				[`lines.${place}.weight`, isLine ? pen.weight : undefined],
				[`lines.${place}.ink`, isLine ? pen.ink : undefined]
			])
		);
	}
	/** Puts a picture in the focused cell. */
	putPicture(picture: CellPicture): void {
		const { r, c } = anchorOf(this.work, this.selection.focus.r, this.selection.focus.c);
		this.edit(`picture in row ${r + 1}, column ${c + 1}`, (work) => {
			guard(work, [{ r, c }], 'content');
			return withCells(work, [{ r, c }], (cell) => ({ ...cell, picture }));
		});
	}
	/** Takes what the server says of styles and house now. */
	renew(styles: readonly BookStyle[], older: Readonly<Record<string, Style>>, house: HouseState): void {
		this.styles = styles;
		this.older = older;
		this.house = house;
	}
	/** Waits until everything is saved. */
	async settled(): Promise<void> {
		await tick();
		while (!this.saving.isIdle) await new Promise((done) => setTimeout(done, 30));
	}

	/* ---- what is shown ---- */

	private readonly shownTexts = new WeakMap<WorkCell, Map<Format, readonly CellContent[]>>();
	/** What a cell shows, by its index: its words, or its value in the format that won. */
	readonly shown: (cell: number) => readonly CellContent[] = $derived.by(() => {
		const { table, work, formats, shownTexts } = this;
		const { locale } = this.house;
		const { cellSignature } = this.resolved.structure;
		const [mark, order] = [markOf(work), dateOrder(work)];
		return (index) => {
			const { r, c } = table.cells[index]!;
			const row = work.rows[r]!;
			const cell = row.cells[c] as WorkCell;
			const format = formats[cellSignature[r * table.columns + c]!]!;
			if (!format.kind || cell.content || cell.picture || !behaviour(row.role).holdsFigures) return shownIn(cell);
			let known = shownTexts.get(cell);
			if (!known) shownTexts.set(cell, (known = new Map()));
			let content = known.get(format);
			if (!content) {
				const text = formatValue(valueOf(cell, mark, order), format, locale);
				known.set(format, (content = text === undefined ? contentOfCell(cell) : [{ runs: [{ text }] }]));
			}
			return content;
		};
	});
}

/** What a change makes of a table; the table as it is where it cannot be made. */
function orSame(work: WorkTable, change: (work: WorkTable) => WorkTable): WorkTable {
	try {
		return change(work);
	} catch {
		return work;
	}
}

/** Whether two tables are the same to a style that has no rules. */
const looksAlike = (a: Table, b: Table): boolean =>
	a.slots === b.slots &&
	a.firstColumns === b.firstColumns &&
	a.lastColumns === b.lastColumns &&
	a.partsOff === b.partsOff &&
	a.carry === b.carry &&
	a.roles.every((role, r) => role === b.roles[r]) &&
	a.columnInfo.every(({ kind, name }, c) => kind === b.columnInfo[c]!.kind && name === b.columnInfo[c]!.name) &&
	a.touches.length === b.touches.length &&
	a.touches.every(({ r, c, set }, i) => r === b.touches[i]!.r && c === b.touches[i]!.c && set === b.touches[i]!.set);
const NOTHING_OFF: readonly string[] = [];
const NOTHING: readonly Aspect[] = [];

const COPIED = 'heptarch:look';
/** So many states are kept to go back to. */
const MOST_ENTRIES = 500;
