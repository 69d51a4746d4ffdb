import { isHeader } from '../../roles/index.ts';
import { NOT, type Clues, type Verdict } from './purpose.ts';

const ORDINAL = /^[([]?(?:\p{Nd}{1,3}|[a-z]|[ivxlc]{1,6})[.):\]]?$/iu;

/** One or two columns of short, parallel texts without figures. What names a value beside it is data. */
export function list({ grid, facts, asData }: Clues): Verdict {
	if (grid.columns > 2 || grid.rows < 2) return NOT;
	const body = asData.rows.flatMap(({ is }, r) => (isHeader(is) || is === 'title' || is === 'note' ? [] : [r]));
	if (body.length < 2) return NOT;
	const texts = (c: number) => body.map((r) => facts[r]!.texts[c]!.trim());
	const first = texts(0);
	const isNumbered = grid.columns === 2 && first.every((text) => ORDINAL.test(text));
	if (grid.columns === 2 && !isNumbered) {
		const asks = first.filter((text) => /[:：]$/u.test(text)).length;
		if (asks * 2 >= first.length) return NOT;
	}
	const columns = isNumbered ? [1] : Array.from({ length: grid.columns }, (_, c) => c);
	const said = body.flatMap((r) => columns.map((c) => facts[r]!.values[c]!));
	const isText = ({ type }: (typeof said)[number]) => type === 'text' || type === 'empty';
	if (!said.every(isText) || said.every(({ type }) => type === 'empty')) return NOT;
	// Ranges and sizes are no figures that add up, and yet what their column measures.
	const isMeasure = (c: number) => texts(c).filter((text) => /^[<>≤≥~]?\s*\p{Nd}/u.test(text)).length * 2 > body.length;
	if (columns.some(isMeasure)) return NOT;
	const empty = said.filter(({ type }) => type === 'empty').length;
	if (empty * 3 > said.length) return NOT;
	const count = grid.columns === 1 ? 'one column' : isNumbered ? 'numbered items' : 'two columns';
	return { sure: grid.columns === 1 || isNumbered ? 0.9 : 0.75, why: [`${count} of text, without figures`] };
}
