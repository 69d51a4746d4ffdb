import { escapeXml } from '../../core/escape.ts';
import { LOOK_FIELDS, type Look } from '../../core/cascade/look.ts';
import { fieldDefinition } from '../../core/properties/index.ts';
import type { Aspect } from '../../core/style/types.ts';
import { headRows } from '../../core/roles/index.ts';
import { toPoints } from '../../core/units.ts';
import { isCleared, keepsOwnLook, touchedAspects, writtenAspects, type Prepared, type StyleJob } from '../job.ts';
import { withoutAttributes, type Edits, type XmlNode } from '../package/xml.ts';
import { CellSides } from '../sides.ts';
import { acrossFrom, mirrored } from '../sides.ts';
import { startsElsewhere } from './direction.ts';
import { runProperties, textLook } from './looks.ts';
import { TEXT_FILL } from './styles.ts';
import type { OdtDocument } from './read.ts';
import type { OdtPart } from './story.ts';
import { attributesOf, SAYABLE } from './properties/index.ts';
import { gapAttributes } from './properties/paragraph.ts';
import type { Attributes } from './properties/property.ts';
import { shadowAttribute, TABLE_SHADOW_ATTRIBUTE } from './properties/shadow.ts';
import { cellProperties, sidesOf } from './say.ts';
import { StyleMaker, styleName } from './styling.ts';
import { paragraphsOf, type TextParagraph, type TextRun } from './text.ts';

/** Only the fields whose aspects are carried. */
const carriedLook = (look: Look, carry: ReadonlySet<Aspect>): Look =>
	Object.fromEntries(
		LOOK_FIELDS.filter((field) => carry.has(fieldDefinition(field).aspect)).flatMap((field) =>
			look[field] === undefined ? [] : [[field, look[field]]]
		)
	);

/** Elements that hold rows, and those that stand before all of them. */
const ROWS = /^table:table-(header-rows|rows|row-group)$/;
const BEFORE_ROWS =
	/^(table:(table-column|table-columns|table-header-columns|table-column-group|title|desc|table-source|scenario)|office:)/;

/** What of a run's text is emphasis, and so content: it stays whatever the style. */
const EMPHASIS = ['weight', 'italic', 'underline', 'ink'] as const;

/** Gives styles to the tables of one part and keeps what that needs: new automatic styles and fonts. */
export class PartWriter {
	readonly maker: StyleMaker;
	private readonly source: string;
	private readonly sides: ReadonlyMap<number, CellSides>;
	private readonly touched: ReadonlyMap<number, ReturnType<typeof touchedAspects>>;

	constructor(
		private readonly document: OdtDocument,
		private readonly part: OdtPart,
		private readonly jobs: ReadonlyMap<number, Prepared>
	) {
		this.source = part.xml.source;
		this.sides = new Map(
			[...jobs].map(([index, { job, wanted }]) => [index, new CellSides(job.table, wanted, SAYABLE.line)])
		);
		this.touched = new Map([...jobs].map(([index, { job }]) => [index, touchedAspects(job.table)]));
		this.maker = new StyleMaker(document.odfStyles, this.source);
	}

	/** Edits of all tables of this part that have a job and stand in no table that has one. */
	edit(edits: Edits): void {
		this.document.sources.forEach(({ part, grid }, index) => {
			if (part !== this.part || !this.jobs.has(index)) return;
			for (
				let up = this.document.tables[index]!.place.inside;
				up !== undefined;
				up = this.document.tables[up]!.place.inside
			)
				if (this.jobs.has(up)) return;
			edits.replace(grid.node.start, grid.node.end, this.table(index));
		});
	}

	private raw(name: string): string {
		const [prefix, local] = name.split(':') as [string, string];
		const own = this.part.xml.prefixes.get(prefix) ?? prefix;
		return own ? `${own}:${local}` : local;
	}

	/** A start tag with attributes set, or taken away by null; the others as they are written. */
	private startTag(node: XmlNode, set: Readonly<Record<string, string | null>>): string {
		let tag = this.source.slice(node.start, node.openEnd);
		const added: string[] = [];
		for (const [name, value] of Object.entries(set)) {
			const raw = this.raw(name);
			tag = withoutAttributes(tag, (own) => own === raw);
			if (value !== null) added.push(` ${raw}="${escapeXml(value)}"`);
		}
		const end = tag.endsWith('/>') ? tag.length - 2 : tag.length - 1;
		return tag.slice(0, end).trimEnd() + added.join('') + tag.slice(end);
	}

	/** A stretch of the source with replacements in it. */
	private within(
		from: number,
		to: number,
		replacements: readonly { start: number; end: number; text: string }[]
	): string {
		let out = '';
		let at = from;
		for (const { start, end, text } of [...replacements].sort((a, b) => a.start - b.start || a.end - b.end)) {
			out += this.source.slice(at, start) + text;
			at = end;
		}
		return out + this.source.slice(at, to);
	}

	private table(index: number): string {
		const { grid } = this.document.sources[index]!;
		const prepared = this.jobs.get(index)!;
		const { job } = prepared;
		const carry = writtenAspects(job);
		const { node } = grid;
		const tableStyle = this.maker.make(
			'table',
			node.attribute('table:style-name'),
			job.style.name,
			{
				'style:table-properties': {
					...(carry.has('linework') && { 'table:border-model': 'collapsing' }),
					...(carry.has('fill') &&
						prepared.wanted.shadow && { [TABLE_SHADOW_ATTRIBUTE]: shadowAttribute(prepared.wanted.shadow) })
				}
			},
			carry
		);
		const open = keepsOwnLook(job)
			? this.startTag(node, carry.has('linework') ? { 'table:style-name': tableStyle } : {})
			: this.startTag(node, {
					'table:style-name': tableStyle,
					'table:template-name': isCleared(job) ? null : styleName(job.style.name)
				});
		const containers = node.children.filter(({ name }) =>
			/^table:(table-row|table-header-rows|table-rows|table-row-group)$/.test(name)
		);
		const first = containers[0];
		if (!first) return this.source.slice(node.start, node.end);
		const replacements =
			grid.isGrouped || prepared.changes
				? this.rowsInPlace(index, prepared)
				: [{ start: first.start, end: containers.at(-1)!.end, text: this.rows(index, prepared) }];
		return open + this.within(node.openEnd, node.end, [...this.columns(node, job), ...replacements]);
	}

	/** Columns with the widths that a job gives them, in the place of those that the table has. */
	private columns(node: XmlNode, { widths = [], style }: StyleJob) {
		if (widths.length === 0) return [];
		const markup = widths.map((width) => {
			const name = this.maker.make(
				'table-column',
				undefined,
				`${style.name}-column`,
				{ 'style:table-column-properties': { 'style:column-width': `${toPoints(width)}pt` } },
				new Set()
			);
			return `<${this.raw('table:table-column')} ${this.raw('table:style-name')}="${name}"/>`;
		});
		return node.children
			.filter(({ name }) => /^table:table-(column|columns|header-columns|column-group)$/.test(name))
			.map(({ start, end }, i) => ({ start, end, text: i === 0 ? markup.join('') : '' }));
	}

	/** All rows anew, the header rows in `table:table-header-rows` so that they repeat on every page. */
	private rows(index: number, prepared: Prepared): string {
		const { grid } = this.document.sources[index]!;
		const head = headRows(prepared.job.table.roles);
		const between = this.betweenRows(grid.node);
		const seen = new Set<XmlNode>();
		const rows = grid.rows.map(({ node }, r) => {
			const before = seen.has(node) ? '' : (between.get(node) ?? '');
			seen.add(node);
			return before + this.row(index, prepared, r);
		});
		const name = this.raw('table:table-header-rows');
		return head ? `<${name}>${rows.slice(0, head).join('')}</${name}>${rows.slice(head).join('')}` : rows.join('');
	}
	/** What stands before rows and is none, such as a soft page break (ODF 1.3 Part 3 §5.6): it stays where it is. */
	private betweenRows(table: XmlNode): ReadonlyMap<XmlNode, string> {
		const found = new Map<XmlNode, string>();
		let waiting = '';
		const visit = (node: XmlNode) => {
			for (const child of node.children)
				if (child.name === 'table:table-row') {
					if (waiting) found.set(child, waiting);
					waiting = '';
				} else if (ROWS.test(child.name)) visit(child);
				else if (found.size || waiting || !BEFORE_ROWS.test(child.name))
					waiting += this.source.slice(child.start, child.end);
		};
		visit(table);
		return found;
	}
	private rowsInPlace(index: number, prepared: Prepared) {
		const { grid } = this.document.sources[index]!;
		const texts = new Map<XmlNode, string>();
		grid.rows.forEach(({ node }, r) => texts.set(node, (texts.get(node) ?? '') + this.row(index, prepared, r)));
		return [...texts].map(([node, text]) => ({ start: node.start, end: node.end, text }));
	}

	private row(index: number, prepared: Prepared, r: number): string {
		const { grid } = this.document.sources[index]!;
		const { job, resolved, changes } = prepared;
		const { table } = job;
		const carry = writtenAspects(job);
		// An edge is said by one of the cells at it: where lines are touched, all cells say theirs anew.
		const isKept = (i: number, cell: XmlNode) =>
			changes && !changes.has(i) && !carry.has('linework') && !this.jobsInside(index, cell).length;
		const { node } = grid.rows[r]!;
		const { cellSignature } = resolved.structure;
		const isTogether = resolved.leaves[cellSignature[r * table.columns]!]?.get('keep.together')?.value === true;
		const old = node.attribute('table:style-name');
		const hasFill = this.document.odfStyles.properties('table-row', old).get('fo:background-color');
		const style =
			isTogether || (hasFill && carry.has('fill') && !changes)
				? this.maker.make(
						'table-row',
						old,
						`${job.style.name}-row`,
						{ 'style:table-row-properties': isTogether ? { 'fo:keep-together': 'always' } : {} },
						carry
					)
				: (old ?? null);
		const open = this.startTag(node, { 'table:number-rows-repeated': null, 'table:style-name': style });
		if (node.selfClosing) return open;
		const replacements: { start: number; end: number; text: string }[] = [];
		let c = 0;
		for (const cell of node.children) {
			if (cell.name !== 'table:table-cell' && cell.name !== 'table:covered-table-cell') continue;
			const times = Math.max(1, Number(cell.attribute('table:number-columns-repeated') ?? 1) || 1);
			let text = '';
			let isChanged = false;
			for (let k = 0; k < times && c < table.columns; k++, c++) {
				const i = table.slots[r * table.columns + c]!;
				const isStart =
					table.cells[i]!.r === r && table.cells[i]!.c === c && grid.cells[i] === cell && !isKept(i, cell);
				if (isStart) isChanged = true;
				text += isStart
					? this.cell(index, prepared, i, cell)
					: this.startTag(cell, { 'table:number-columns-repeated': null }) +
						(cell.selfClosing ? '' : this.source.slice(cell.openEnd, cell.end));
			}
			if (isChanged) replacements.push({ start: cell.start, end: cell.end, text });
		}
		return open + this.within(node.openEnd, node.end, replacements);
	}

	private cell(index: number, prepared: Prepared, i: number, cell: XmlNode): string {
		const { job, wanted, resolved } = prepared;
		const { table } = job;
		const carry = new Set([...writtenAspects(job), ...(this.touched.get(index)!.get(i) ?? [])]);
		const isRight = table.dir === 'rtl';
		const look = carriedLook(wanted.looks[wanted.cellLook[i]!]!, carry);
		const cellStyle = this.document.sources[index]!.grid.cellStyles[i];
		const { r, c } = table.cells[i]!;
		const parts = resolved.structure.signatures[resolved.structure.cellSignature[r * table.columns + c]!]!.parts;
		const hint = `${job.style.name}-${parts.at(-1)?.name.replace(/[:"]/g, '-') ?? 'ground'}`;
		const style = this.maker.make(
			'table-cell',
			cellStyle,
			hint,
			{
				'style:table-cell-properties': cellProperties(
					isRight ? mirrored(look) : look,
					carry.has('linework') ? sidesOf(this.sides.get(index)!, i, isRight) : undefined
				)
			},
			carry
		);
		const open = this.startTag(cell, { 'table:style-name': style, 'table:number-columns-repeated': null });
		if (cell.selfClosing) return open;
		const replacements: { start: number; end: number; text: string }[] = [];
		const { odfStyles } = this.document;
		const old = this.document.tables[index]!.appearance;
		const before = old.looks[old.cellLook[i]!]!;
		const paragraphs = paragraphsOf(cell, this.source);
		const behind = (run: TextRun, paragraph: TextParagraph) =>
			runProperties(paragraph, run, odfStyles, cellStyle).get(TEXT_FILL) ?? 'transparent';
		const backgrounds = new Set(paragraphs.flatMap((one) => one.runs.map((run) => behind(run, one))));
		// A background behind all of the text is the cell's fill; one behind some words marks them.
		const isMarked = backgrounds.size > 1;
		const isFilled = !isMarked && carry.has('fill') && !backgrounds.has('transparent');
		for (const [at, paragraph] of paragraphs.entries()) {
			const own = odfStyles.inCell(paragraph.node.attribute('text:style-name'), cellStyle);
			const turned = look.h && startsElsewhere(own, isRight) ? { ...look, h: acrossFrom(look.h, true) } : look;
			const name = this.maker.make(
				'paragraph',
				paragraph.node.attribute('text:style-name'),
				hint,
				{
					'style:paragraph-properties': {
						...attributesOf('paragraph', turned),
						...(look.paragraphGap !== undefined && gapAttributes(look.paragraphGap, at === 0))
					},
					'style:text-properties': attributesOf('text', look, this.maker.font)
				},
				carry
			);
			replacements.push({
				start: paragraph.node.start,
				end: paragraph.node.openEnd,
				text: this.startTag(paragraph.node, { 'text:style-name': name })
			});
			if (!carry.has('text') && !isFilled) continue;
			const seen = new Set<XmlNode>();
			for (const run of paragraph.runs)
				for (const span of run.spans) {
					if (seen.has(span)) continue;
					seen.add(span);
					const spanStyle = span.attribute('text:style-name');
					if (spanStyle === undefined) continue;
					if (!carry.has('text')) {
						const bare = this.maker.make('text', spanStyle, 'emphasis', {}, new Set<Aspect>(['fill']));
						const text = this.startTag(span, { 'text:style-name': bare });
						replacements.push({ start: span.start, end: span.openEnd, text });
						continue;
					}
					const own = textLook(
						runProperties(paragraph, { ...run, spans: [span] }, odfStyles, cellStyle),
						odfStyles,
						before.size
					);
					const said = odfStyles.properties('text', spanStyle);
					const emphasis: Look = Object.fromEntries(
						(job.dropsEmphasis ? [] : EMPHASIS)
							.filter((field) => own[field] !== before[field])
							.map((field) => [field, own[field]])
					);
					const position: Attributes = Object.fromEntries(
						[...said].filter(([key]) => key === 'style:text-position' || key.startsWith('style:text-line-through'))
					);
					const marked = isMarked && !job.dropsEmphasis ? said.get(TEXT_FILL) : undefined;
					const attributes = {
						...attributesOf('text', emphasis, this.maker.font),
						...position,
						...(marked && { 'fo:background-color': marked })
					};
					replacements.push({
						start: span.start,
						end: span.openEnd,
						text: this.startTag(span, {
							'text:style-name':
								Object.keys(attributes).length || odfStyles.get('text', spanStyle)?.isAutomatic === false
									? this.emphasis(spanStyle, attributes)
									: null
						})
					});
				}
		}
		for (const inner of this.jobsInside(index, cell)) {
			const { node } = this.document.sources[inner]!.grid;
			replacements.push({ start: node.start, end: node.end, text: this.table(inner) });
		}
		return open + this.within(cell.openEnd, cell.end, replacements);
	}

	/** The tables in a cell that have a job. */
	private jobsInside(index: number, cell: XmlNode): number[] {
		return [...this.jobs.keys()].filter((inner) => {
			const { node } = this.document.sources[inner]!.grid;
			return this.document.tables[inner]!.place.inside === index && node.start >= cell.start && node.end <= cell.end;
		});
	}

	/** A text style with this emphasis and nothing else of a look. */
	private emphasis(old: string, attributes: Attributes): string {
		const { odfStyles } = this.document;
		const named = odfStyles.get('text', old);
		const isPlain = [...odfStyles.properties('text', old).keys()].every(
			(key) => key.replace(/^text /, '') in attributes
		);
		if (named && !named.isAutomatic && isPlain) return old;
		return this.maker.make(
			'text',
			named?.isAutomatic ? old : undefined,
			'emphasis',
			{ 'style:text-properties': attributes },
			new Set<Aspect>(['text']),
			(element) => element !== 'style:text-properties' || named?.isAutomatic === true
		);
	}
}
