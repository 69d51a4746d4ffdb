import { InputError } from '../errors.ts';
import { DEPTH, MOST_PLACES, type Formula, type Operand, type Operator } from './formula.ts';
import { readFigure } from './figure.ts';
import type { Summary } from './summary.ts';

/** How summaries are written before the column or the list that they are of. */
const SUMMARY_WORDS: Readonly<Record<Summary, string>> = {
	sum: 'sum of',
	mean: 'mean of',
	count: 'how many of',
	least: 'least of',
	greatest: 'greatest of'
};
const SUMMARY = new Map(Object.entries(SUMMARY_WORDS).map(([how, words]) => [words, how as Summary]));
const SUMMARY_TYPED = /(sum|mean|how\s+many|least|greatest)\s+of(?![\p{L}\p{N}])\s*/iuy;
const TOTAL_TYPED = /total\s+of(?![\p{L}\p{N}])\s*/iuy;
const ROUND_TYPED = /round\s*\(/iuy;
const ABOVE = /^above$/i;
const KEYWORDS = /^((sum|mean|how\s+many|least|greatest|total)\s+of(?![\p{L}\p{N}])|round\s*\(|above$)/iu;

/** Numbers as they are typed, or a figure with its measure. */
const isLiteral = (word: string): boolean => /\d/.test(word) && (!!readFigure(word, '.') || !!readFigure(word, ','));
const needsQuotes = (name: string): boolean =>
	isLiteral(name) || KEYWORDS.test(name) || /[+−×÷*/()“”";]|(^|\s)-|-(\s|$)/.test(name);

const nameText = (name: string): string => (needsQuotes(name) ? `“${name}”` : name);

function operandText(operand: Operand): string {
	if ('group' in operand) return `(${formulaText(operand.group)})`;
	if ('minus' in operand) return `−${operandText(operand.minus)}`;
	if ('list' in operand) return `${SUMMARY_WORDS[operand.summary]} (${operand.list.map(formulaText).join('; ')})`;
	if ('summary' in operand) return `${SUMMARY_WORDS[operand.summary]} ${nameText(operand.column)}`;
	if ('column' in operand) return nameText(operand.column);
	if ('round' in operand) return `round (${formulaText(operand.round)}; ${operand.to})`;
	if ('total' in operand) return `total of ${nameText(operand.total)}`;
	return 'above' in operand ? 'above' : operand.number;
}
/** A formula as a person types it: `Price × (Count + 2)`; names that could be misread stand in quotes. */
export const formulaText = (formula: Formula): string =>
	formula.map((term) => (typeof term === 'string' ? term : operandText(term))).join(' ');

const TYPED_OPERATORS: Readonly<Record<string, Operator>> = {
	'+': '+',
	'−': '−',
	'-': '−',
	'×': '×',
	'*': '×',
	'÷': '÷',
	'/': '÷'
};

/**
 * Reads a typed formula (figures.md, *Formulas as typed*). Operators are + − × ÷, also * and /; a hyphen inside a name is
 * none. `names` are columns whose names have a stroke in them, as `Plan / Labour`. Throws InputError saying what cannot be
 * read; whether the columns are there is for `formulaFault`.
 */
export function parseFormula(text: string, names: readonly string[] = []): Formula {
	return new Parser(text, names).whole();
}

class Parser {
	private at = 0;
	private readonly paths: readonly string[];

	constructor(
		private readonly text: string,
		names: readonly string[]
	) {
		this.paths = names.filter((name) => name.includes(' / ')).sort((a, b) => b.length - a.length);
	}

	whole(): Formula {
		const formula = this.formula(1);
		if (this.at < this.text.length) this.fail(`“${this.text[this.at]}” has nothing that it closes or parts.`);
		if (formula.length === 0) this.fail('A formula names columns and numbers, such as “Price × Count”.');
		return formula;
	}
	private fail(message: string): never {
		throw new InputError('formula', message);
	}
	private skip(): void {
		while (/\s/.test(this.text[this.at] ?? '')) this.at++;
	}
	private take(pattern: RegExp): string | undefined {
		pattern.lastIndex = this.at;
		const match = pattern.exec(this.text);
		if (match) this.at = pattern.lastIndex;
		return match?.[0];
	}

	/** Terms up to a bracket or a semicolon that is not theirs. */
	private formula(depth: number): Formula {
		if (depth > DEPTH) this.fail(`Brackets go ${DEPTH} deep at most.`);
		const terms: (Operand | Operator)[] = [];
		for (;;) {
			this.skip();
			const letter = this.text[this.at];
			if (letter === undefined || letter === ')' || letter === ';') return terms;
			const operator = TYPED_OPERATORS[letter];
			const isAfterOperand = typeof terms.at(-1) === 'object';
			if (operator && (isAfterOperand || operator !== '−')) {
				this.at++;
				terms.push(operator);
			} else terms.push(this.operand(depth));
		}
	}
	private operand(depth: number): Operand {
		this.skip();
		const letter = this.text[this.at];
		if (letter === '-' || letter === '−') {
			this.at++;
			if (depth >= DEPTH) this.fail(`Brackets go ${DEPTH} deep at most.`);
			return { minus: this.operand(depth + 1) };
		}
		if (letter === '(') {
			this.at++;
			const group = this.formula(depth + 1);
			this.close();
			return { group };
		}
		if (letter === '“' || letter === '"') return { column: this.quoted() };
		const summary = this.take(SUMMARY_TYPED);
		if (summary !== undefined) {
			const how = SUMMARY.get(summary.trim().toLowerCase().replace(/\s+/g, ' '))!;
			return this.text[this.at] === '('
				? { summary: how, list: this.list(depth) }
				: { summary: how, column: this.name('A column or a list in brackets comes after “of”.') };
		}
		if (this.take(TOTAL_TYPED) !== undefined) return { total: this.name('A column comes after “total of”.') };
		if (this.take(ROUND_TYPED) !== undefined) {
			const round = this.formula(depth + 1);
			const places = /;\s*(\d{1,2})\s*/uy;
			const to = Number(/\d+/.exec(this.take(places) ?? '')?.[0] ?? NaN);
			if (!(to <= MOST_PLACES)) this.fail('After “round (… ;” comes how many decimals are to be left, such as 2.');
			this.close();
			return { round, to };
		}
		const word = this.word();
		if (!word) this.fail(`A number or a column is missing before “${letter}”.`);
		if (ABOVE.test(word)) return { above: true };
		return isLiteral(word) ? { number: word } : { column: word };
	}
	private list(depth: number): Formula[] {
		const list: Formula[] = [];
		do {
			this.at++;
			list.push(this.formula(depth + 1));
		} while (this.text[this.at] === ';');
		this.close();
		return list;
	}
	private close(): void {
		this.skip();
		if (this.text[this.at] !== ')') this.fail('A bracket is not closed.');
		this.at++;
	}
	private quoted(): string {
		const end = this.text.slice(this.at + 1).search(/[”"]/);
		if (end < 0) this.fail('A quotation mark is not closed.');
		const name = this.text.slice(this.at + 1, this.at + 1 + end).trim();
		this.at += end + 2;
		return name;
	}
	private name(missing: string): string {
		const letter = this.text[this.at];
		const name = letter === '“' || letter === '"' ? this.quoted() : this.word();
		if (!name) this.fail(missing);
		return name;
	}
	/** What goes on to the next operator, bracket or semicolon; brackets that begin inside a name belong to it. */
	private word(): string {
		const rest = this.text.slice(this.at);
		const path = this.paths.find((one) => rest.startsWith(one) && !/^[\p{L}\p{N}]/u.test(rest.slice(one.length)));
		if (path) {
			this.at += path.length;
			return path;
		}
		const start = this.at;
		let open = 0;
		for (; this.at < this.text.length; this.at++) {
			const letter = this.text[this.at]!;
			const before = this.text.slice(start, this.at);
			if (letter === '(' && before.trim()) open++;
			else if (letter === ')' && open) open--;
			else if (letter === '(' || letter === ')' || letter === ';' || letter === '“' || letter === '"') break;
			else if (!open && TYPED_OPERATORS[letter]) {
				const isHyphen = letter === '-' && /\S$/.test(before) && /^\S/.test(this.text.slice(this.at + 1));
				if (!isHyphen && !this.isInMeasure(start)) break;
			}
		}
		return this.text.slice(start, this.at).trim();
	}
	/** Whether the stroke here parts a unit of a literal: `3 €/kg`, with no space on either side. */
	private isInMeasure(start: number): boolean {
		if (this.text[this.at] !== '/') return false;
		const word = /^\S+/.exec(this.text.slice(this.at))![0].replace(/[);].*$/, '');
		return /[^\s\d]$/.test(this.text.slice(start, this.at)) && isLiteral(this.text.slice(start, this.at) + word);
	}
}
