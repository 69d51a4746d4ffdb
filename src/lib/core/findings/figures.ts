import { behaviour } from '../roles/index.ts';
import type { Table } from '../table/grid.ts';
import { doubtWords, markBy, markOfTable, markVotes, type DecimalMark } from '../values/parse.ts';
import { workOf } from '../work/convert.ts';
import { withoutWords } from '../work/figures.ts';
import { typedSums } from '../work/sums.ts';
import { found, type Finding } from './finding.ts';
import { markInDoubt } from './mark-doubt.ts';
import { sumPartial } from './sum-partial.ts';
import { totalOff } from './total-off.ts';
import { unitsMixed } from './units-mixed.ts';

/** Doubts are looked for in so many cells at most. */
const MOST_TEXTS = 60_000;

/**
 * What is to be looked at in the figures of a table: sums that are off or leave rows out, units that cannot be added, a
 * decimal mark that nothing tells. `usual` is the mark of the house, by which a doubt is read.
 */
export function findFigures(table: Table, usual: DecimalMark = '.'): Finding[] {
	const sums = table.roles.some((role) => behaviour(role).sums) ? findSums(table, usual) : [];
	return [...sums, ...findDoubt(table, usual)];
}

function findSums(table: Table, usual: DecimalMark): Finding[] {
	return typedSums({ ...workOf(table), mark: markOfTable(table, usual) }).flatMap(
		({ r, c, isRight, off, text, problem, without }): Finding[] => {
			const role = behaviour(table.roles[r]!).words;
			if (problem !== undefined) return [found(unitsMixed, { role, why: problem }, { r, c })];
			const findings: Finding[] = [];
			if (isRight === false)
				findings.push(found(totalOff, { role, off: off.replace(/^[−-]|[()]/g, ''), should: text }, { r, c }));
			if (without.length) findings.push(found(sumPartial, { role, without: withoutWords({ without }) }, { r, c }));
			return findings;
		}
	);
}

function findDoubt(table: Table, usual: DecimalMark): Finding[] {
	if (table.mark) return [];
	const holds = (c: number) => !['text', 'code', 'date'].includes(table.columnInfo[c]!.kind);
	const cells = table.cells
		.slice(0, MOST_TEXTS)
		.filter(({ r, c }) => behaviour(table.roles[r]!).holdsFigures && holds(c));
	const { doubt } = markBy(markVotes(cells.map(({ text }) => text)), usual);
	if (doubt === undefined) return [];
	const { r, c } = cells.find(({ text }) => text.trim() === doubt)!;
	return [found(markInDoubt, { question: doubtWords(doubt, usual) }, { r, c })];
}
