import { typeRoleOf } from '$lib/core/house.ts';
import type { Side } from '$lib/core/table/grid.ts';
import { edgeParts, resolveParts, traceCell, type Resolved } from '$lib/core/cascade/resolve.ts';
import { settingsAt, withLeafAt, withLeavesAt } from '$lib/core/style/edit.ts';
import { findingsOf, withFix, type Finding, type Fix } from '$lib/core/findings/index.ts';
import { baseChain, type FlatStyle } from '$lib/core/style/inherit.ts';
import { leavesOf, TYPE_ROLE_LEAVES } from '$lib/core/style/leaves.ts';
import { parsePart, partWords, type Rank } from '$lib/core/style/parts.ts';
import { LINE_PLACES, type LeafValue, type LinePlace, type Style } from '$lib/core/style/types.ts';
import { leafWords } from '$lib/core/style/words.ts';
import { listed } from '$lib/core/words.ts';
import { ROLES } from '$lib/core/roles/index.ts';
import type { StyleRecord } from '$lib/server/styles/styles.ts';
import type { HouseState } from '$lib/workbench/house.ts';
import { partsOfRank } from '$lib/workbench/parts.ts';
import { Stylebook } from '$lib/workbench/stylebook.ts';
import { StyleDraft, type DraftHistory } from './draft.svelte.ts';
import type { LeafSource, LineState, PropertyOwner } from './owner.ts';
import { Sheet, type SheetSpecimen } from './sheet.svelte.ts';

export type View = 'screen' | 'paper' | 'greyscale' | 'protan' | 'deutan' | 'tritan';

/** What the linework mode draws with: a line, an explicit none, or nothing (what was said here goes). */
export type Pen =
	| { readonly draws: 'line'; readonly pattern: string; readonly weight: string; readonly ink: string }
	| { readonly draws: 'none' }
	| { readonly draws: 'untouched' };

/** What is picked on the sheet: a cell, or one edge of it. */
export interface Picked {
	readonly key: string;
	readonly cell: number;
	readonly side?: Side;
}

export interface BenchData {
	readonly style: StyleRecord;
	readonly styles: readonly StyleRecord[];
	readonly house: HouseState;
	readonly history: DraftHistory;
}

const HEADER = ROLES.find(({ isHeader, part }) => isHeader && part)!.family;
const isRule = (place: string) => place.startsWith('rule:');

/** The style bench: a style being worked on, what of it is chosen, and how it looks on the specimens. */
export class Bench implements PropertyOwner {
	readonly draft: StyleDraft;
	readonly sheet: Sheet;
	readonly id: string;
	styles: readonly StyleRecord[] = $state.raw([]);
	house: HouseState = $state.raw({} as HouseState);
	specimens: readonly SheetSpecimen[] = $state.raw([]);

	rank: Rank = $state(1);
	/** The part, or `rule:<name>`, whose settings the property sheet shows. */
	place = $state('ground');
	spotlit = $state(false);
	picked: Picked | undefined = $state.raw();
	isTracing = $state(true);
	/** What can be set at the picked cell stands beside it. */
	isSettingHere = $state(false);
	private wantsToDraw = $state(false);
	pen: Pen = $state.raw({ draws: 'line', pattern: 'solid', weight: '0.35mm', ink: 'loam' });
	/** The leaf whose field is to have the focus, once it is there. */
	sought: string | undefined = $state();
	/** An edge picked in linework mode that is not one of the chosen part's: who could speak of it. */
	foreignEdge: readonly { part: string; place: LinePlace }[] = $state.raw([]);
	view: View = $state('screen');
	/** Pages of paper are looked at: they have no edges to pick. */
	readonly canDraw = $derived(this.view !== 'paper');
	isAsTheyCame = $state(false);
	isLookingAtTheirs = $state(false);
	/** A change that is only tried: shown on the sheet, and gone again. */
	tried: Style | undefined = $state.raw();

	readonly book = $derived(new Stylebook(this.styles, this.house));
	readonly find = (reference: string): Style | undefined => this.book.get(reference)?.definition;
	readonly definition = $derived(
		this.tried ?? (this.isLookingAtTheirs && this.theirs ? this.theirs : this.draftDefinition)
	);
	readonly flat: FlatStyle = $derived(this.book.flatten(this.definition));
	readonly chain = $derived(baseChain(this.definition, this.find));
	readonly base = $derived(this.book.get(this.definition.basedOn ?? undefined));
	readonly inks: Readonly<Record<string, string>> = $derived({
		...this.house.inks,
		...Object.fromEntries(this.flat.inks)
	});
	readonly roles = $derived([...new Set([...Object.keys(this.house.typeRoles), ...this.flat.typeRoles.keys()])]);
	readonly parts = $derived(partsOfRank(this.rank, this.flat));
	readonly ownCounts: ReadonlyMap<string, number> = $derived(
		new Map(Object.entries(this.definition.parts).map(([name, settings]) => [name, leavesOf(settings).size]))
	);
	private lastFindings: readonly Finding[] = [];
	/** What to know about the style; while a fix is only tried, or the sheet is still behind, what was known before. */
	readonly findings: readonly Finding[] = $derived.by(() => {
		const { definition: style, flat, shown } = this;
		if (this.tried || shown[0]?.resolved.style !== flat) return this.lastFindings;
		this.lastFindings = findingsOf({
			style,
			flat,
			house: this.house,
			tables: shown.map(({ specimen: { key, from, title }, resolved, appearance }) => ({
				key,
				title: `${from}, ${title}`,
				resolved,
				appearance
			})),
			flatten: (other) => this.book.flatten(other)
		});
		return this.lastFindings;
	});
	private readonly own = $derived(leavesOf(settingsAt(this.definition, this.place)));
	/** A cell that the part rules, on any specimen, with its trace: where leaves that are not set come from. */
	private readonly example = $derived.by(() => {
		let plainest: { resolved: Resolved; slot: number; parts: number } | undefined;
		for (const { resolved } of this.shown)
			resolved.structure.signatures.forEach(({ parts }, signature) => {
				if (!parts.some(({ name }) => name === this.place)) return;
				const ends = parts.some(({ name }) => name !== this.place && /^(first|last)Column$/.test(name)) ? 1 : 0;
				if (plainest && parts.length + ends >= plainest.parts) return;
				const slot = resolved.structure.cellSignature.indexOf(signature);
				if (slot >= 0) plainest = { resolved, slot, parts: parts.length + ends };
			});
		if (!plainest) return undefined;
		const { columns } = plainest.resolved.structure.table;
		return traceCell(plainest.resolved, Math.floor(plainest.slot / columns), plainest.slot % columns);
	});

	/** No table on the sheet has a cell of the chosen part. */
	readonly isUnseen = $derived(this.shown.length > 0 && !this.place.startsWith('rule:') && !this.example);

	constructor({ style, styles, house, history }: BenchData, specimens: readonly SheetSpecimen[]) {
		this.id = style.id;
		this.styles = styles;
		this.house = house;
		this.specimens = specimens;
		this.draft = StyleDraft.of(style.id, history);
		this.sheet = new Sheet(specimens, this.flat, house, this.find);
		// The pen begins with the ink that the style's lines have, else with that of its text.
		const leaves = [...this.flat.parts.values()].flatMap((part) => [...part]);
		const ink = (leaves.find(([path]) => /^lines\..*ink$/.test(path)) ??
			leaves.find(([path]) => path === 'text.ink'))?.[1];
		this.pen = {
			draws: 'line',
			pattern: 'solid',
			weight: '0.35mm',
			ink: String(ink?.value ?? Object.keys(house.inks)[0])
		};
	}

	get words(): string {
		return partWords(this.place);
	}
	/** The specimens in the style, as last resolved. */
	get shown() {
		return this.sheet.shown;
	}
	private get theirs(): Style | undefined {
		const { theirs } = this.draft;
		return theirs?.steps[theirs.at - theirs.first]?.definition;
	}
	private get draftDefinition(): Style {
		return this.draft.definition;
	}

	/** Where the value of a leaf of the chosen part comes from. */
	source(path: string): LeafSource {
		const own = this.own.get(path);
		if (own !== undefined) return { value: own, isSet: true, from: 'set here' };
		const rule = isRule(this.place) ? this.flat.rules.find(({ name }) => name === this.place.slice(5)) : undefined;
		const inherited = isRule(this.place) ? rule?.leaves.get(path) : this.flat.parts.get(this.place)?.get(path);
		if (inherited) return { value: inherited.value, isSet: false, from: inherited.style, isInherited: true };
		const opened = this.roleLeaf(path);
		if (opened) return opened;
		const self = parsePart(this.place);
		const weaker = this.example?.get(path)?.find(({ part: name, rank: other }) => {
			if (isRule(this.place)) return other < 6;
			const parsed = parsePart(name);
			return self && parsed && (other < self.rank || (other === self.rank && parsed.order < self.order));
		});
		if (weaker) return { value: weaker.value, isSet: false, from: partWords(weaker.part), part: weaker.part };
		if (!this.example && !path.startsWith('lines.') && this.place !== 'ground') {
			const carrier = this.specimens[0]!.table;
			const ground = resolveParts(this.flat, this.house, carrier, ['ground']).leaves.get(path);
			if (ground) return { value: ground.value, isSet: false, from: 'ground', part: 'ground' };
		}
		return { value: undefined, isSet: false, from: path.startsWith('lines.') ? 'untouched' : 'nobody' };
	}

	/** What the type role that the chosen part names says of a leaf. */
	private roleLeaf(path: string): LeafSource | undefined {
		const name = path.startsWith('text.') ? path.slice(5) : '';
		if (!(TYPE_ROLE_LEAVES as readonly string[]).includes(name)) return undefined;
		const { value: role, isSet, isInherited } = this.source('text.role');
		if (!isSet && !isInherited) return undefined;
		const opened = this.flat.typeRoles.get(String(role)) ?? typeRoleOf(this.house, String(role));
		const value = opened?.[name as (typeof TYPE_ROLE_LEAVES)[number]];
		return value === undefined ? undefined : { value, isSet: false, from: `role ${role}` };
	}

	/** Whether a rule belongs to this style and not to one that it builds on. */
	/** Whether edges are picked on the sheet. */
	get isDrawing(): boolean {
		return this.wantsToDraw && this.canDraw;
	}
	set isDrawing(wanted: boolean) {
		this.wantsToDraw = wanted;
	}

	ownsRule(name: string): boolean {
		return !!this.draft.definition.rules?.some((rule) => rule.name === name);
	}

	set(path: string, value: LeafValue | undefined): void {
		this.change(
			withLeafAt(this.draft.definition, this.place, path, value),
			`${partWords(this.place)}: ${leafWords(path)}`
		);
	}
	setAll(leaves: readonly (readonly [path: string, value: LeafValue | undefined])[], words: string): void {
		this.change(withLeavesAt(this.draft.definition, this.place, leaves), `${partWords(this.place)}: ${words}`);
	}
	/** Some parts say the same, as one step; the first of them is what the property sheet shows then. */
	say(
		parts: readonly string[],
		leaves: readonly (readonly [path: string, value: LeafValue | undefined])[],
		words: string
	): void {
		const definition = parts.reduce((style, place) => withLeavesAt(style, place, leaves), this.draft.definition);
		this.change(definition, `${listed(parts.map(partWords))}: ${words}`);
		const { spotlit } = this;
		this.choose(parts[0]!);
		this.spotlit = spotlit;
	}
	/** A new step of the draft, which is what is shown then. */
	change(definition: Style, label: string): void {
		this.isLookingAtTheirs = false;
		this.draft.change(definition, label);
	}
	fix(fix: Fix): void {
		this.tried = undefined;
		this.change(withFix(this.draft.definition, fix), fix.words);
	}
	tryFix(fix: Fix | undefined): void {
		this.tried = fix && withFix(this.draft.definition, fix);
	}

	chooseRank(rank: Rank): void {
		this.rank = rank;
		if (rank === 6) {
			const first = this.flat.rules[0];
			this.place = first ? `rule:${first.name}` : this.place;
			this.spotlit = !!first;
		} else if (rank <= 5) {
			const offered = partsOfRank(rank, this.flat);
			// Rows begin with the one that most tables have.
			const usual = rank === 4 ? HEADER : undefined;
			this.choose(usual ?? offered.find((name) => this.ownCounts.has(name)) ?? offered[0]!);
		}
	}
	/** Chooses a part or `rule:<name>`. */
	choose(place: string): void {
		const rank = isRule(place) ? 6 : parsePart(place)?.rank;
		if (!rank) return;
		this.rank = rank;
		this.place = place;
		this.spotlit = rank > 1;
		this.foreignEdge = [];
	}
	nextPart(by: number): void {
		const places = this.rank === 6 ? this.flat.rules.map(({ name }) => `rule:${name}`) : this.parts;
		const at = places.indexOf(this.place);
		if (at >= 0) this.choose(places[(at + by + places.length) % places.length]!);
	}

	/** Draws with the pen on some lines of the chosen part, or of others, as one step. */
	draw(lines: Iterable<LinePlace>, ...places: string[]): void {
		const drawn = [...lines];
		if (!drawn.length) return;
		const { pen } = this;
		const leaves = drawn.flatMap((line): [string, LeafValue | undefined][] => [
			[`lines.${line}.pattern`, pen.draws === 'line' ? pen.pattern : pen.draws === 'none' ? 'none' : undefined],
			[`lines.${line}.weight`, pen.draws === 'line' ? pen.weight : undefined],
			[`lines.${line}.ink`, pen.draws === 'line' ? pen.ink : undefined]
		]);
		const on = places.length ? places : [this.place];
		const definition = on.reduce((style, place) => withLeavesAt(style, place, leaves), this.draft.definition);
		const words = drawn.map((line) => leafWords(`lines.${line}.pattern`)).join(', ');
		this.change(definition, `${on.map(partWords).join(', ')}: ${words}`);
		this.foreignEdge = [];
	}
	/** Says who could speak of an edge that is not one of the chosen part's. */
	offerEdge(resolved: Resolved, edge: number): void {
		const known = (name: string) => name === 'ground' || this.flat.parts.has(name) || !/:\d+$|columns:/.test(name);
		this.foreignEdge = edgeParts(resolved.structure, edge)
			.filter(({ part }) => part.rank <= 5 && known(part.name))
			.map(({ part, place }) => ({ part: part.name, place }));
	}
	/** How an edge place of the chosen part stands in this style: drawn, none on purpose, or untouched. */
	lineState(line: LinePlace): LineState {
		const pattern = this.own.get(`lines.${line}.pattern`);
		return pattern === undefined ? 'untouched' : pattern === 'none' ? 'none' : 'set';
	}
	readonly lineStates = $derived(
		Object.fromEntries(LINE_PLACES.map((line) => [line, this.lineState(line)])) as Record<LinePlace, LineState>
	);
}
