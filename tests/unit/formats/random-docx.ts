import { docx } from './documents.ts';
import { Random } from './random.ts';

const SIDES = ['top', 'left', 'bottom', 'right'];
const INSIDE = [...SIDES, 'insideH', 'insideV'];
const CONDITIONS = 'firstRow lastRow firstCol lastCol band1Horz band2Horz band1Vert nwCell seCell'.split(' ');

/** Writes WordprocessingML in which everything that decides a table's look is at odds with everything else. */
class RandomDocx {
	constructor(private readonly random: Random) {}

	private colour = () => this.random.pick(['FF0000', '00FF00', '0000FF', 'auto', 'FFEEAA', '333333', 'FFFFFF']);

	private border(name: string): string {
		const pattern = this.random.pick('single double nil none dashed dotted thick wave triple'.split(' '));
		const weight = this.random.pick([2, 4, 8, 12, 24]);
		return `<w:${name} w:val="${pattern}" w:sz="${weight}" w:space="0" w:color="${this.colour()}"/>`;
	}
	private borders = (tag: string, names: readonly string[]) =>
		`<w:${tag}>${this.random.some(
			0.5,
			names.map((name) => () => this.border(name))
		)}</w:${tag}>`;
	private shading = () =>
		`<w:shd w:val="${this.random.pick(['clear', 'clear', 'pct25', 'solid'])}" w:color="${this.colour()}" w:fill="${this.colour()}"/>`;

	private text(style: boolean): string {
		const { random } = this;
		return `<w:rPr>${random.some(0.3, [
			() => (style ? '<w:rStyle w:val="C1"/>' : ''),
			() => `<w:b${random.maybe(0.3, () => ' w:val="0"')}/>`,
			() => '<w:i/>',
			() => '<w:caps/>',
			() => `<w:color w:val="${this.colour()}"/>`,
			() => `<w:sz w:val="${random.pick([16, 21, 28])}"/>`,
			() => '<w:u w:val="single"/>',
			this.shading
		])}</w:rPr>`;
	}
	private paragraph(text: string): string {
		const { random } = this;
		const properties = () =>
			`<w:pPr>${random.some(0.4, [
				() => `<w:pStyle w:val="${random.pick(['P1', 'P2'])}"/>`,
				this.shading,
				() => `<w:jc w:val="${random.pick(['left', 'center', 'right', 'both', 'start', 'end'])}"/>`
			])}</w:pPr>`;
		const more = () => `<w:r>${this.text(true)}<w:t xml:space="preserve"> more</w:t></w:r>`;
		return `<w:p>${random.maybe(0.6, properties)}<w:r>${random.maybe(0.5, () => this.text(true))}<w:t>${text}</w:t></w:r>${random.maybe(0.2, more)}</w:p>`;
	}

	table(isInside = false): string {
		const { random } = this;
		const rows = 1 + random.below(6);
		const columns = 1 + random.below(5);
		/** How many columns a cell that goes on downwards has, at its first. */
		const open = Array<number>(columns).fill(0);
		let body = '';
		for (let r = 0; r < rows; r++) {
			let cells = '';
			for (let c = 0; c < columns;) {
				const goesOn = open[c]! > 0;
				let width = open[c]!;
				let merge = '<w:vMerge/>';
				if (goesOn) {
					if (random.is(0.5)) open[c] = 0;
				} else {
					width = random.is(0.25) ? Math.min(columns - c, 1 + random.below(3)) : 1;
					for (let k = 1; k < width; k++) if (open[c + k]! > 0) width = k;
					merge = random.maybe(r < rows - 1 ? 0.15 : 0, () => '<w:vMerge w:val="restart"/>');
					if (merge) open[c] = width;
				}
				const properties = random.some(0.3, [
					() => this.borders('tcBorders', [...SIDES, 'tl2br']),
					this.shading,
					() => '<w:tcMar><w:top w:w="60" w:type="dxa"/><w:left w:w="200" w:type="dxa"/></w:tcMar>',
					() => `<w:vAlign w:val="${random.pick(['top', 'center', 'bottom'])}"/>`
				]);
				const text = random.pick(['Total', `r${r}c${c}`, String(random.below(5000)), '12.50', 'a &amp; b', '']);
				const inside = random.maybe(isInside ? 0 : 0.05, () => `${this.table(true)}<w:p/>`);
				cells += `<w:tc><w:tcPr><w:tcW w:w="${1000 * width}" w:type="dxa"/>${width > 1 ? `<w:gridSpan w:val="${width}"/>` : ''}${merge}${properties}</w:tcPr>${inside}${goesOn ? '<w:p/>' : this.paragraph(text)}</w:tc>`;
				c += width;
			}
			const row = random.maybe(0.2, () => `<w:trPr>${r === 0 ? '<w:tblHeader/>' : '<w:cantSplit/>'}</w:trPr>`);
			body += `<w:tr>${row}${cells}</w:tr>`;
		}
		const look = 'firstRow lastRow firstColumn lastColumn noHBand noVBand'.split(' ');
		const properties = random.some(0.5, [
			() => `<w:tblStyle w:val="${random.pick(['T1', 'T2'])}"/>`,
			() => this.borders('tblBorders', INSIDE),
			() => '<w:tblCellMar><w:left w:w="150" w:type="dxa"/></w:tblCellMar>',
			() => `<w:tblLook ${look.map((name) => `w:${name}="${random.below(2)}"`).join(' ')}/>`
		]);
		return `<w:tbl><w:tblPr>${properties}</w:tblPr><w:tblGrid>${'<w:gridCol w:w="1000"/>'.repeat(columns)}</w:tblGrid>${body}</w:tbl>`;
	}

	styles(): string {
		const { random } = this;
		const conditional = (type: string) =>
			`<w:tblStylePr w:type="${type}"><w:pPr>${random.maybe(0.3, () => '<w:jc w:val="center"/>')}</w:pPr>${random.maybe(0.5, () => this.text(false))}<w:tcPr>${random.some(0.4, [() => this.borders('tcBorders', INSIDE), this.shading])}</w:tcPr></w:tblStylePr>`;
		const table = (id: string, based = '') =>
			`<w:style w:type="table" w:styleId="${id}"><w:name w:val="${id}"/>${based}<w:rPr>${random.maybe(0.5, () => '<w:color w:val="444444"/>')}</w:rPr><w:tblPr><w:tblStyleRowBandSize w:val="1"/>${random.maybe(0.6, () => this.borders('tblBorders', INSIDE))}</w:tblPr>${random.some(
				0.4,
				CONDITIONS.map((type) => () => conditional(type))
			)}</w:style>`;
		const named = (type: string, id: string, inside: string, isDefault = false) =>
			`<w:style w:type="${type}"${isDefault ? ' w:default="1"' : ''} w:styleId="${id}"><w:name w:val="${id}"/>${inside}</w:style>`;
		return [
			`<w:docDefaults><w:rPrDefault><w:rPr><w:sz w:val="${random.pick([20, 22])}"/></w:rPr></w:rPrDefault></w:docDefaults>`,
			named(
				'paragraph',
				'Normal',
				random.maybe(0.5, () => this.text(false)),
				true
			),
			named(
				'paragraph',
				'P1',
				`<w:basedOn w:val="Normal"/><w:pPr>${random.maybe(0.3, this.shading)}<w:jc w:val="right"/></w:pPr><w:rPr><w:b/></w:rPr>`
			),
			named('paragraph', 'P2', '<w:basedOn w:val="P1"/><w:rPr><w:color w:val="118811"/></w:rPr>'),
			named('character', 'C1', `<w:rPr><w:b/><w:i/>${random.maybe(0.3, this.shading)}</w:rPr>`),
			table('T1'),
			table('T2', '<w:basedOn w:val="T1"/>')
		].join('');
	}
}

/** A DOCX with one to three tables; the same for the same seed. */
export function randomDocx(seed: number): Promise<Uint8Array<ArrayBuffer>> {
	const random = new Random(seed);
	const maker = new RandomDocx(random);
	const tables = Array.from({ length: 1 + random.below(3) }, () => maker.table());
	return docx({ body: tables.join('<w:p/>'), styles: maker.styles() });
}
