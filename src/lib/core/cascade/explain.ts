import { partWords, RANKS } from '../style/parts.ts';
import { leafWords, valueWords } from '../style/words.ts';
import type { Decided } from './resolve.ts';

export const rankNumeral = (rank: number): string => RANKS.find((entry) => entry.rank === rank)?.numeral ?? '';

const list = (words: readonly string[]): string => (words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`);

/** A trace as one sentence, strongest rank first: "Weight and fill come from IV total; family comes from I ground." */
export function explainTrace(trace: ReadonlyMap<string, readonly Decided[]>): string {
	const byPart = new Map<string, { rank: number; leaves: string[] }>();
	for (const [path, [winner]] of trace) {
		if (!winner) continue;
		const entry = byPart.get(winner.part) ?? { rank: winner.rank, leaves: [] };
		entry.leaves.push(leafWords(path));
		byPart.set(winner.part, entry);
	}
	if (byPart.size === 0) return 'Nothing is said about this cell.';
	const clauses = [...byPart]
		.sort(([, a], [, b]) => b.rank - a.rank)
		.map(([part, { rank, leaves }]) => `${list(leaves)} ${leaves.length === 1 ? 'comes' : 'come'} from ${rankNumeral(rank)} ${partWords(part)}`.replace('from VII touch', 'from a touch (VII)'));
	const text = clauses.join('; ');
	return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}

/** One leaf of a trace: "fern, from row band 2 in Season Ledger, overruling ground". */
export function explainLeaf(path: string, [winner, ...overruled]: readonly Decided[]): string {
	const from = `${valueWords(path, winner!.value)}, from ${partWords(winner!.part)}${winner!.style ? ` in ${winner!.style}` : ''}`;
	return overruled.length ? `${from}, overruling ${list(overruled.map(({ part }) => partWords(part)))}` : from;
}
