import { plural, pluralWord } from '$lib/core/words.ts';
import { tick } from 'svelte';
import { invalidate } from '$app/navigation';
import type { Line } from '$lib/core/history.ts';
import type { ChangeAnswer, RowChange } from '$lib/core/schedule/difference.ts';
import type { Extent } from '$lib/core/layout/matrix.ts';
import type { Finding } from '$lib/core/findings/finding.ts';
import type { ObjectKind } from '$lib/core/schedule/objects.ts';
import { freeId, innerFrame, roomFor, type PlacedTable } from '$lib/core/schedule/placed.ts';
import { proposeSchedule } from '$lib/core/schedule/propose.ts';
import { standing } from '$lib/core/schedule/table.ts';
import type { ScheduleRows, SheetFacts } from '$lib/core/schedule/rows.ts';
import type { DocumentTable } from '$lib/formats/document.ts';
import type { ShownObjects } from '$lib/formats/svg/shown.ts';
import type { Sheet, SheetAnswer } from '$lib/formats/svg/sheet.ts';
import { call } from '../api.ts';
import { notify, notifyError } from '../notices.svelte.ts';
import type { DrawnOut } from '$lib/server/drawings/drawings.ts';
import type { StepInfo } from '$lib/server/history.ts';
import { figureFindings } from '$lib/workbench/findings.ts';
import { answered } from '$lib/workbench/schedules.ts';
import type { DocumentState, TableState } from '$lib/workbench/state.ts';
import { lineAt, Sender } from '../history.svelte.ts';
import { tellPublished } from '../published.ts';
import { Maker } from './maker.ts';

/** What the server says of a drawing. */
export interface SheetData {
	readonly id: string;
	readonly name: string;
	readonly step: number;
	readonly version: number;
	readonly steps: readonly StepInfo[];
	readonly state: DocumentState;
	readonly sheet: Sheet;
	readonly kinds: readonly ObjectKind[];
	readonly symbols: readonly { readonly symbol: string; readonly name: string }[];
	readonly layers: readonly { readonly name: string; readonly depth: number; readonly objects: number }[];
	readonly frames: readonly Extent[];
	readonly placed: readonly PlacedTable[];
	readonly remarks: readonly string[];
	readonly tables: readonly DocumentTable[];
	readonly drawn: readonly DrawnOut[];
	readonly behind: readonly { readonly changes: readonly RowChange[]; readonly problem?: string }[];
	readonly others: readonly { readonly id: string; readonly name: string }[];
}

/** A table that is being made or changed; nothing of it is saved yet. */
export interface Draft {
	readonly placed: PlacedTable;
	readonly own: TableState;
	/** Which table on the sheet it is; undefined for a new one. */
	readonly index?: number;
	/**
	 * The rows and touches that its definition began with. Whatever is tried with the definition, what was typed by hand
	 * comes from these, so that a row that was left out for a while comes back with it.
	 */
	readonly base?: { readonly rows: ScheduleRows; readonly own: TableState };
}

/** What the objects of a drawing depend on. */
const objectsKey = ({ id, state: { drawing } }: SheetData): string =>
	JSON.stringify([id, drawing?.file, drawing?.attributes, drawing?.sheet]);

/** All tables of the sheet with what they wear. */
type Tables = readonly { readonly placed: PlacedTable; readonly own: TableState }[];

/** What a step of a drawing says. */
interface Standing {
	readonly tables: Tables;
	readonly sheet: SheetAnswer | undefined;
	readonly attributes: Readonly<Record<string, Readonly<Record<string, string | null>>>> | undefined;
}

/** The sheet view's state: what is saved, what is picked, and what is being changed. */
export class Desk {
	data = $state.raw<SheetData>() as SheetData;
	objects = $state.raw<ShownObjects>();
	/** Index of the picked table; −1 for none. */
	picked = $state(-1);
	/** Kinds of objects that light up. */
	lit = $state.raw<readonly string[]>([]);
	/** The object that was clicked, by its index. */
	object = $state(-1);
	hidden = $state.raw<ReadonlySet<number>>(new Set());
	draft = $state.raw<Draft>();
	/** How the draft comes out; undefined while that is being worked out. */
	draftDrawn = $state.raw<DrawnOut>();
	/** Why the draft cannot be drawn. */
	problem = $state<string>();
	/** The draft hangs at the pointer. */
	placing = $state(false);
	readonly maker = new Maker();

	constructor(data: SheetData) {
		this.data = data;
		const reload = () => this.reload();
		this.sender = Sender.of(`/drawings/${data.id}`, {
			needs: 'author',
			line: () => this.line,
			version: () => this.data.version,
			orderTo: (to) => ({ path: `/api/documents/${data.id}/step`, body: { version: this.data.version, to } }),
			async take(answer) {
				await reload();
				await tellPublished((answer as { published?: readonly string[] }).published);
			},
			drop: () => this.drop(),
			renew: reload,
			keepsTried: true
		});
	}

	/** Takes what the server says now, after a step; objects are fetched again where they can have changed. */
	renew(data: SheetData): void {
		this.data = data;
		if (this.known !== undefined && this.known !== objectsKey(data)) this.loadObjects().catch(notifyError);
		if (this.picked >= data.placed.length) this.picked = -1;
	}

	get tables(): Tables {
		return this.data.placed.map((placed, index) => ({ placed, own: this.data.state.tables[index] ?? {} }));
	}
	get facts(): SheetFacts {
		return {
			scale: this.data.sheet.scale,
			name: this.data.name,
			names: new Map(this.data.kinds.map(({ kind, name }) => [kind, name])),
			symbols: new Set(this.data.symbols.map(({ symbol }) => symbol))
		};
	}
	/** What is drawn of the table at an index: its draft while it is being changed. */
	drawnAt(index: number): DrawnOut | undefined {
		return this.draft?.index === index && this.draftDrawn ? this.draftDrawn : this.data.drawn[index];
	}

	/** The state of the drawing that the objects are of, or are being fetched for. */
	private known: string | undefined;
	private loaded: Promise<void> | undefined;
	loadObjects(): Promise<void> {
		const { id, name } = this.data;
		const key = (this.known = objectsKey(this.data));
		const loaded = call('GET', `/api/drawings/${id}/objects`).then(
			(objects) => {
				// Only the newest counts, however the answers come.
				if (key !== this.known) return this.loaded;
				this.objects = objects;
				this.maker.learn('', name, objects);
			},
			(error: unknown) => {
				// Asked for again when they are next needed.
				if (key === this.known) this.loaded = undefined;
				throw error;
			}
		);
		return (this.loaded = loaded);
	}
	private async learnOthers(others: readonly { id: string; name: string }[]): Promise<void> {
		for (const { id, name } of others)
			if (!this.maker.knows(id)) this.maker.learn(id, name, await call('GET', `/api/drawings/${id}/objects`));
	}

	/** The rows that a table's drawing gives now. */
	async rowsNow({ source }: PlacedTable) {
		if (source.from !== 'objects') return undefined;
		const others = source.with ?? [];
		await (this.loaded ?? this.loadObjects());
		await this.learnOthers(others);
		return this.maker.rows(
			source.definition,
			others.map(({ id }) => id),
			this.facts
		);
	}

	private turn = 0;
	/** Changes the draft and draws it; the newest change only, however fast they come. */
	async tryOut(draft: Draft, { newRows = false } = {}): Promise<void> {
		this.draft = draft;
		const turn = ++this.turn;
		try {
			let { placed, own } = draft;
			if (newRows) {
				const now = await this.rowsNow(placed);
				if (turn !== this.turn) return;
				const base = draft.base ?? { rows: placed.rows, own };
				if (now) {
					const next = answered({ ...placed, rows: base.rows }, base.own, now, 'all');
					placed = next.placed;
					own = { ...own, ...(next.own.touches && { touches: next.own.touches }) };
				}
				this.draft = { ...draft, placed, own, base };
			}
			const [drawn] = await call('POST', `/api/drawings/${this.data.id}/draw`, {
				tables: [{ placed, state: own }]
			});
			if (turn !== this.turn) return;
			this.draftDrawn = drawn;
			this.problem = undefined;
		} catch (error) {
			if (turn === this.turn) this.problem = (error as Error).message;
		}
	}
	drop(): void {
		this.turn++;
		this.draft = undefined;
		this.draftDrawn = undefined;
		this.problem = undefined;
		this.placing = false;
	}
	/** The picked table as a draft, for changing. */
	draftOf(index: number): Draft {
		if (this.draft?.index === index) return this.draft;
		const { placed, own } = this.tables[index]!;
		return { placed, own, index };
	}
	/** Draws the picked table in another style while somebody points at it. */
	async pointAt(wearing: TableState | undefined): Promise<void> {
		if (this.picked < 0) return;
		if (!wearing) return this.drop();
		const { placed, own } = this.tables[this.picked]!;
		await this.tryOut({ placed, own: { ...own, ...wearing }, index: this.picked });
	}

	readonly sender: Sender;
	get busy(): boolean {
		return this.sender.isBusy;
	}
	/**
	 * Saves a step; whether it was saved. What the tables, the scale and the attributes are from now on is worked out from
	 * what they are when the step is sent.
	 */
	save(label: string, next: (now: Standing) => Partial<Standing>, again?: () => unknown): Promise<boolean> {
		return this.sender.send(() => {
			const { drawing } = this.data.state;
			const now = { tables: this.tables, sheet: drawing?.sheet, attributes: drawing?.attributes };
			const { tables, sheet, attributes } = { ...now, ...next(now) };
			return {
				label,
				method: 'POST',
				path: `/api/documents/${this.data.id}/steps`,
				body: {
					version: this.data.version,
					label,
					tables: Object.fromEntries(
						tables.flatMap(({ own }, index) => (Object.keys(own).length ? [[index, own]] : []))
					),
					drawing: {
						placed: tables.map(({ placed }) => placed),
						...(sheet && { sheet }),
						...(attributes && { attributes })
					}
				}
			};
		}, again);
	}
	async reload(): Promise<void> {
		await invalidate('heptarch:sheet');
		// Until the page has handed on what it got.
		await tick();
	}

	/** Puts the draft on the sheet, or in the place of the table that it came from. */
	async keepDraft(label: string): Promise<void> {
		const { draft } = this;
		if (!draft) return;
		const { index = this.data.placed.length, placed, own } = draft;
		const isSaved = await this.save(
			label,
			({ tables }) => ({ tables: [...tables.slice(0, index), { placed, own }, ...tables.slice(index + 1)] }),
			() => this.keepDraft(label)
		);
		if (!isSaved) return;
		this.drop();
		this.picked = index;
	}
	/** Changes one table as a step, given what it is when the step is sent; whether it was saved. */
	change(index: number, label: string, next: (now: Tables[number]) => Partial<Tables[number]>): Promise<boolean> {
		return this.save(label, ({ tables }) => ({
			tables: tables.map((table, i) => (i === index ? { ...table, ...next(table) } : table))
		}));
	}
	async remove(index: number): Promise<void> {
		const title = this.titleOf(index);
		this.picked = -1;
		this.drop();
		const isOff = await this.save(`${title} taken off the sheet`, ({ tables }) => ({
			tables: tables.filter((_, i) => i !== index)
		}));
		if (isOff) notify(`“${title}” is off the sheet. Ctrl+Z puts it back.`);
	}
	/**
	 * Why the sums of a table do not fit what it shows, as findings: so it is where only some changes of a schedule were
	 * accepted.
	 */
	sumsOut(index: number): readonly Finding[] {
		return figureFindings(this.data.tables[index]!).filter(
			({ kind }) => kind === 'total-off' || kind === 'units-mixed'
		);
	}
	titleOf(index: number): string {
		return this.data.tables[index]?.place.caption ?? `table ${index + 1}`;
	}

	/** Accepts changes of a schedule: all of them, or those that are answered. */
	async accept(index: number, answers: ReadonlyMap<string, ChangeAnswer> | 'all'): Promise<void> {
		try {
			const now = await this.rowsNow(this.tables[index]!.placed);
			if (!now) return;
			const count = answers === 'all' ? this.data.behind[index]!.changes.length : answers.size;
			await this.change(index, `${this.titleOf(index)}: ${plural(count, 'change')}`, (table) =>
				answered(table.placed, table.own, now, answers)
			);
		} catch (error) {
			notifyError(error);
		}
	}
	async acceptAll(): Promise<void> {
		const behind = this.data.behind.flatMap(({ changes }, index) => (changes.length ? [index] : []));
		try {
			const read = new Map<number, Awaited<ReturnType<typeof this.rowsNow>>>();
			let count = 0;
			for (const index of behind) {
				const now = await this.rowsNow(this.tables[index]!.placed);
				if (!now) continue;
				count += this.data.behind[index]!.changes.length;
				read.set(index, now);
			}
			const isSaved = await this.save(`read again: ${plural(count, 'change')}`, ({ tables }) => ({
				tables: tables.map((table, index) => {
					const now = read.get(index);
					return now ? answered(table.placed, table.own, now, 'all') : table;
				})
			}));
			if (isSaved) notify(`${pluralWord(count, 'One change is', `${count} changes are`)} in. Ctrl+Z takes them back.`);
		} catch (error) {
			notifyError(error);
		}
	}
	get changes(): number {
		return this.data.behind.reduce((sum, { changes }) => sum + changes.length, 0);
	}

	/** A new schedule of some kinds, as a first proposal. */
	propose(kinds: readonly string[], own: TableState): Draft {
		const definition = proposeSchedule(this.data.kinds, kinds);
		const rows = { columns: [{ name: '–' }], rows: [], problems: [] };
		return { placed: this.fresh({ from: 'objects', definition }, rows), own };
	}

	/** A table with an id of its own, at the top right, below what stands along that edge already. */
	fresh(source: PlacedTable['source'], rows: PlacedTable['rows']): PlacedTable {
		const { sheet, drawn, placed, frames } = this.data;
		const room = roomFor(frames, sheet);
		const below = drawn
			.filter(({ x, y, width }) => x + width > room.x2 - 20 && y < sheet.height / 2)
			.reduce((least, { y, height }) => Math.max(least, y + height + 5), room.y1);
		return {
			id: freeId(placed),
			source,
			rows,
			at: { x: room.x2, y: below < sheet.height * 0.8 ? below : room.y1 },
			corner: 'top-end',
			reads: 'down'
		};
	}

	/** Lines that a table's edges snap to: the sheet's frame and the edges of other tables. */
	snapLines(except: number): { x: number[]; y: number[] } {
		const { width, height } = this.data.sheet;
		const boxes = this.data.drawn.flatMap(({ x, y, width: w, height: h }, i) =>
			i === except ? [] : [{ x1: x, y1: y, x2: x + w, y2: y + h }]
		);
		const frame = innerFrame(this.data.frames, this.data.sheet);
		const around = [{ x1: 0, y1: 0, x2: width, y2: height }, ...(frame ? [frame] : []), ...boxes];
		return { x: around.flatMap(({ x1, x2 }) => [x1, x2]), y: around.flatMap(({ y1, y2 }) => [y1, y2]) };
	}

	/** Which rows of which tables list an object. */
	rowsOf(key: string): { index: number; row: string; words: string }[] {
		return this.data.placed.flatMap(({ rows }, index) =>
			rows.rows
				.filter(({ objects }) => objects.includes(key))
				.map(({ key: row, cells }) => ({
					index,
					row,
					words: cells
						.map(({ text }) => text)
						.filter((text) => text)
						.slice(0, 2)
						.join(' · ')
				}))
		);
	}

	/** The rows of a table as they stand on the sheet, by their keys. */
	standingKeys(index: number): string[] {
		const { rows, reads } = this.data.placed[index]!;
		return standing(rows.rows, reads).map(({ key }) => key);
	}

	get line(): Line<StepInfo> {
		return lineAt(this.data.steps, this.data.step);
	}
}
