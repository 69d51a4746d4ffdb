import { partWords, RANKS } from '../style/parts.ts';
import { leafWords, valueWords } from '../style/words.ts';
import type { Decided, traceEdge } from './resolve.ts';

export const rankNumeral = (rank: number): string => RANKS.find((entry) => entry.rank === rank)?.numeral ?? '';

const list = (words: readonly string[]): string =>
	words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** More leaves of one part than this are not listed but summed up. */
const LISTED = 4;

/**
 * A trace as one sentence, strongest rank first: "Weight and fill come from IV total; the rest comes from I ground."
 * `lines` are the edges of the cell that it decides, named.
 */
export function explainTrace(
	trace: ReadonlyMap<string, readonly Decided[]>,
	lines: readonly { words: string; part: string; rank: number }[] = []
): string {
	const byPart = new Map<string, { rank: number; leaves: string[] }>();
	const add = (part: string, rank: number, words: string) => {
		const entry = byPart.get(part) ?? { rank, leaves: [] };
		entry.leaves.push(words);
		byPart.set(part, entry);
	};
	for (const [path, [winner]] of trace) if (winner) add(winner.part, winner.rank, leafWords(path));
	for (const { words, part, rank } of lines) add(part, rank, words);
	if (byPart.size === 0) return 'Nothing is said about this cell.';
	const clauses = [...byPart]
		.sort(([, a], [, b]) => b.rank - a.rank)
		.map(([part, { rank, leaves }], i, all) =>
			`${leaves.length > LISTED && i === all.length - 1 ? (all.length > 1 ? 'the rest' : 'everything') : list(leaves)} ${leaves.length === 1 || (leaves.length > LISTED && i === all.length - 1) ? 'comes' : 'come'} from ${rankNumeral(rank)} ${partWords(part)}`.replace(
				'from VII touch',
				'from a touch (VII)'
			)
		);
	const text = clauses.join('; ');
	return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}

/** One leaf of a trace: "fern, from row band 2 in Season Ledger, overruling ground". */
export function explainLeaf(path: string, [winner, ...overruled]: readonly Decided[]): string {
	const from = `${valueWords(path, winner!.value)}, from ${partWords(winner!.part)}${winner!.style ? ` in ${winner!.style}` : ''}`;
	return overruled.length ? `${from}, overruling ${list(overruled.map(({ part }) => partWords(part)))}` : from;
}

/** An edge's trace as one sentence: "Solid 1pt fern, from IV total; it overrules I ground (none)." */
export function explainEdge(trace: NonNullable<ReturnType<typeof traceEdge>>): string {
	const { line, part, rank } = trace.result;
	if (!line) return 'Nobody claims this edge, so there is no line; on screen a guide may stand there.';
	const words =
		line.pattern === 'none' ? 'No line, said on purpose' : [line.pattern, line.weight, line.ink].join(' ').trim();
	const others = new Map<string, string>();
	for (const claim of trace.claims)
		for (const decided of claim.get('pattern') ?? [])
			if (decided.part !== part && !others.has(decided.part))
				others.set(decided.part, `${rankNumeral(decided.rank)} ${partWords(decided.part)} (${decided.value})`);
	const from = `${words[0]!.toUpperCase()}${words.slice(1)}, from ${rankNumeral(rank!)} ${partWords(part!)}`;
	return others.size ? `${from}; it overrules ${list([...others.values()])}.` : `${from}.`;
}
