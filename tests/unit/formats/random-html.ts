import { Random } from './random.ts';

const SELECTORS = [
	'table',
	'td',
	'th',
	'.x',
	'.y td',
	'tr:nth-child(even) td',
	'tr:nth-child(odd)',
	'table.t td',
	'tbody',
	'thead',
	'td:first-child',
	'tr:last-child > *',
	'td + td',
	'body',
	'b'
];

/** Writes pages in which everything that decides a table's look is at odds with everything else, and tags are left open. */
class RandomHtml {
	constructor(private readonly random: Random) {}

	private declaration(): string {
		const { random } = this;
		const colour = random.pick(
			'red #00ff00 rgb(0,0,255) rgba(10,20,30,.5) transparent #FFEEAA currentColor inherit'.split(' ')
		);
		return random.pick<string>([
			`border${random.pick(['', '-top', '-left', '-bottom', '-right'])}: ${random.pick(['1px', 'thin', '2pt', '3px', '0'])} ${random.pick('solid double dashed dotted none hidden'.split(' '))} ${colour}`,
			`background${random.pick(['', '-color'])}: ${colour}`,
			`padding: ${random.pick(['2px', '1pt 4pt', '0', '3px 1px 2px 4px'])}`,
			`text-align: ${random.pick('left right center justify start end'.split(' '))}`,
			`vertical-align: ${random.pick('top middle bottom baseline'.split(' '))}`,
			`font-weight: ${random.pick('bold normal 600 bolder'.split(' '))}`,
			`font-style: ${random.pick(['italic', 'normal'])}`,
			`font-size: ${random.pick('12px 10pt 1.2em larger 80%'.split(' '))}`,
			`color: ${colour}`,
			`font-family: ${random.pick(["'Source Sans 3', serif", 'monospace'])}`,
			`text-transform: ${random.pick('uppercase none capitalize'.split(' '))}`,
			`text-decoration: ${random.pick(['underline', 'none'])}`,
			`letter-spacing: ${random.pick(['1px', 'normal'])}`,
			`line-height: ${random.pick('1.5 20px normal'.split(' '))}`,
			`font: ${random.pick(['italic bold 12px/1.4 serif', '10pt sans-serif'])}`
		]);
	}
	private declarations(): string {
		const all: string[] = [];
		while (this.random.is(0.6)) all.push(this.declaration());
		return all.join('; ');
	}
	private style(probability: number): string {
		const inside = this.random.is(probability) ? this.declarations() : '';
		return inside && ` style="${inside}"`;
	}
	private words = () =>
		this.random.pick([
			'Total',
			'Bed',
			String(this.random.below(5000)),
			'12.50',
			'a &amp; b',
			'',
			'<b>bold</b> and not',
			'<span style="color: red">red</span>',
			'two<br>lines',
			'<p>p one</p><p>p two</p>'
		]);
	private attribute = () =>
		this.random.maybe(0.1, () =>
			this.random.pick([
				' bgcolor="#eeeeee"',
				' align="center"',
				' valign="top"',
				' nowrap',
				' class="x"',
				' class="y z"'
			])
		);

	table(isInside = false): string {
		const { random } = this;
		const rows = 1 + random.below(6);
		const columns = 1 + random.below(5);
		const taken = Array.from({ length: rows }, () => Array<boolean>(columns).fill(false));
		const lines = taken.map((row, r) => {
			let cells = '';
			row.forEach((isTaken, c) => {
				if (isTaken || taken[r]![c]) return;
				let across = random.is(0.2) ? 1 + random.below(columns - c) : 1;
				const down = random.is(0.15) ? 1 + random.below(rows - r) : 1;
				for (let k = 1; k < across; k++) if (taken[r]![c + k]) across = k;
				for (let y = r; y < r + down; y++) taken[y]!.fill(true, c, c + across);
				const name = random.is(r === 0 ? 0.6 : 0.1) ? 'th' : 'td';
				const spans = `${across > 1 ? ` colspan="${across}"` : ''}${down > 1 ? ` rowspan="${down}"` : ''}`;
				const inside = !isInside && random.is(0.04) ? this.table(true) : this.words();
				const end = random.maybe(0.9, () => `</${name}>`);
				cells += `<${name}${spans}${this.attribute()}${this.style(0.4)}>${inside}${end}`;
			});
			return `<tr${this.attribute()}${this.style(0.15)}>${cells}${random.maybe(0.9, () => '</tr>')}`;
		});
		const attributes = random.some(0.3, [() => ' border="1"', () => ' cellpadding=4', () => ' class="t"']);
		const caption = random.maybe(0.2, () => '<caption>c</caption>');
		return `<table${attributes}${this.style(0.4)}>${caption}${lines.join('\n')}</table>`;
	}

	page(): string {
		const { random } = this;
		const rules = Array.from({ length: random.below(6) }, () => `${random.pick(SELECTORS)} { ${this.declarations()} }`);
		if (random.is(0.5)) rules.push('table { border-collapse: collapse }');
		const tables = Array.from({ length: 1 + random.below(3) }, () => this.table());
		return `<!doctype html><html><head><style>${rules.join('\n')}</style></head><body${this.style(0.3)}>${tables.join('<p>x</p>')}</body></html>`;
	}
}

/** A web page with one to three tables; the same for the same seed. */
export const randomHtml = (seed: number): Uint8Array<ArrayBuffer> =>
	new TextEncoder().encode(new RandomHtml(new Random(seed)).page());
