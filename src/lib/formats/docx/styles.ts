import type { XmlNode } from '../package/xml.ts';
import { readBorders, type Borders } from './properties/borders.ts';
import { readCell, readMargins, type CellLayer, type Margins } from './properties/cell.ts';
import { readParagraph, type ParagraphLayer } from './properties/paragraph.ts';
import { readShading } from './properties/shading.ts';
import { readOnOff, readText, type TextLayer } from './properties/text.ts';
import { REGIONS, type Region } from './regions.ts';
import type { Theme } from './theme.ts';

/** What a table style says of one region. */
export interface RegionLayer {
	readonly text: TextLayer;
	readonly paragraph: ParagraphLayer;
	readonly cell: CellLayer;
}

interface DocxStyle {
	readonly id: string;
	readonly name: string;
	readonly type: string;
	readonly basedOn?: string;
	readonly isDefault: boolean;
	readonly node: XmlNode;
}

/** A table style with its base chain resolved. */
export interface TableStyle {
	readonly regions: ReadonlyMap<Region, RegionLayer>;
	readonly tableBorders: Borders;
	readonly tableMargins: Margins;
	readonly rowBandSize: number;
	readonly columnBandSize: number;
	/** Its tables' columns run from right to left. */
	readonly isRight: boolean;
}

export interface TextStyle {
	readonly text: TextLayer;
	readonly paragraph: ParagraphLayer;
}

const EMPTY_TABLE_STYLE: TableStyle = {
	regions: new Map(),
	tableBorders: {},
	tableMargins: {},
	rowBandSize: 1,
	columnBandSize: 1,
	isRight: false
};

/** `over` laid over `under`, leaf by leaf. */
function mergeRegion(under: RegionLayer | undefined, over: RegionLayer): RegionLayer {
	if (!under) return over;
	return {
		text: { ...under.text, ...over.text },
		paragraph: { ...under.paragraph, ...over.paragraph },
		cell: {
			...under.cell,
			...over.cell,
			margins: { ...under.cell.margins, ...over.cell.margins },
			borders: { ...under.cell.borders, ...over.cell.borders }
		}
	};
}

/** The styles part of a document (§17.7), resolved along base chains on demand. */
export class StyleSheet {
	readonly styles = new Map<string, DocxStyle>();
	readonly defaults: TextStyle;
	private readonly textStyles = new Map<string, TextStyle>();
	private readonly tableStyles = new Map<string, TableStyle>();
	private readonly defaultIds = new Map<string, string>();
	private readonly workedOut = new Map<string, object>();
	private readonly layers = new Map<string, object>();

	constructor(
		root: XmlNode | undefined,
		readonly theme: Theme
	) {
		const defaults = root?.child('w:docDefaults');
		this.defaults = {
			text: readText(defaults?.at('w:rPrDefault', 'w:rPr'), theme),
			paragraph: readParagraph(defaults?.at('w:pPrDefault', 'w:pPr'), theme)
		};
		for (const node of root?.children ?? []) if (node.name === 'w:style') this.add(node);
	}

	/** Adds or replaces one w:style. */
	add(node: XmlNode): void {
		const id = node.attribute('w:styleId') ?? '';
		const type = node.attribute('w:type') ?? 'paragraph';
		const isDefault = ['1', 'true', 'on'].includes(node.attribute('w:default') ?? '');
		this.styles.set(id, {
			id,
			type,
			name: node.child('w:name')?.attribute('w:val') ?? id,
			basedOn: node.child('w:basedOn')?.attribute('w:val'),
			isDefault,
			node
		});
		if (isDefault) this.defaultIds.set(type, id);
		this.textStyles.clear();
		this.tableStyles.clear();
		this.workedOut.clear();
	}

	/** The one object for all that are equal to `layer`. */
	interned<T extends object>(layer: T): T {
		const key = JSON.stringify(Object.entries(layer).sort(([a], [b]) => (a < b ? -1 : 1)));
		const known = this.layers.get(key);
		if (known) return known as T;
		this.layers.set(key, layer);
		return layer;
	}

	/** What is worked out from the styles under a key, made once; forgotten when a style is added. */
	once<T extends object>(key: string, make: () => T): T {
		let found = this.workedOut.get(key) as T | undefined;
		if (!found) this.workedOut.set(key, (found = make()));
		return found;
	}

	/** A style and those it builds on, base first. Chains that come back to themselves are cut there. */
	private chain(id: string | undefined, type: string): DocxStyle[] {
		const chain: DocxStyle[] = [];
		for (let at = id === undefined ? undefined : this.styles.get(id); at && at.type === type;)
			if (chain.includes(at) || chain.length > 100) break;
			else {
				chain.unshift(at);
				at = at.basedOn === undefined ? undefined : this.styles.get(at.basedOn);
			}
		return chain;
	}

	/** A paragraph or character style; without an id, the default of that type. */
	text(id: string | undefined, type: 'paragraph' | 'character'): TextStyle {
		const wanted = id !== undefined && this.styles.get(id)?.type === type ? id : this.defaultIds.get(type);
		const key = `${type} ${wanted}`;
		let style = this.textStyles.get(key);
		if (!style) {
			style = { text: {}, paragraph: {} };
			for (const { node } of this.chain(wanted, type)) {
				Object.assign(style.text, readText(node.child('w:rPr'), this.theme));
				Object.assign(style.paragraph, readParagraph(node.child('w:pPr'), this.theme));
			}
			this.textStyles.set(key, style);
		}
		return style;
	}

	/** A table style; without an id (or with one that is missing), the default table style. */
	table(id: string | undefined): TableStyle {
		const wanted = id !== undefined && this.styles.get(id)?.type === 'table' ? id : this.defaultIds.get('table');
		if (wanted === undefined) return EMPTY_TABLE_STYLE;
		let style = this.tableStyles.get(wanted);
		if (!style) this.tableStyles.set(wanted, (style = this.readTableStyle(wanted)));
		return style;
	}

	private readTableStyle(id: string): TableStyle {
		const regions = new Map<Region, RegionLayer>();
		const style = { regions, tableBorders: {}, tableMargins: {}, rowBandSize: 1, columnBandSize: 1, isRight: false };
		const take = (region: Region, node: XmlNode) => {
			const tblPr = node.child('w:tblPr');
			const cell = readCell(node.child('w:tcPr'), this.theme);
			const fill = readShading(tblPr?.child('w:shd'), this.theme);
			if (fill && !cell.fill) cell.fill = fill;
			if (region !== 'wholeTable') {
				cell.borders = { ...readBorders(tblPr?.child('w:tblBorders'), this.theme), ...cell.borders };
				cell.margins = { ...readMargins(tblPr?.child('w:tblCellMar')), ...cell.margins };
			}
			const layer = {
				text: readText(node.child('w:rPr'), this.theme),
				paragraph: readParagraph(node.child('w:pPr'), this.theme),
				cell
			};
			regions.set(region, mergeRegion(regions.get(region), layer));
		};
		for (const { node } of this.chain(id, 'table')) {
			const tblPr = node.child('w:tblPr');
			Object.assign(style.tableBorders, readBorders(tblPr?.child('w:tblBorders'), this.theme));
			Object.assign(style.tableMargins, readMargins(tblPr?.child('w:tblCellMar')));
			const size = (name: string) => Math.max(0, Number(tblPr?.child(name)?.attribute('w:val')) || 0);
			style.rowBandSize = size('w:tblStyleRowBandSize') || style.rowBandSize;
			style.isRight = readOnOff(tblPr?.child('w:bidiVisual')) ?? style.isRight;
			style.columnBandSize = size('w:tblStyleColBandSize') || style.columnBandSize;
			take('wholeTable', node);
			for (const override of node.children) {
				const region = override.attribute('w:type') as Region | undefined;
				if (override.name === 'w:tblStylePr' && region && REGIONS.includes(region)) take(region, override);
			}
		}
		return style;
	}
}
