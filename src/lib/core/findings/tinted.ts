import { parsePart, partWords } from '../style/parts.ts';
import { leafWords, valueWords } from '../style/words.ts';
import { findingKind, found, type Finding } from './finding.ts';
import type { Trial } from './trial.ts';

interface Args {
	/** The part that chose the fill, and the one of a lower rank that says how strong it is. */
	readonly part: string;
	readonly by: string;
	readonly path: Strength;
	readonly value: number;
}
type Strength = 'fill.tint' | 'fill.opacity';

export const tinted = findingKind({
	code: 'tinted',
	called: 'tint that changes little',
	of: ['style'],
	words: ({ part, path, value }: Args) =>
		`The fill of ${partWords(part)} shows with a ${leafWords(path)} of ${valueWords(path, value)} only`,
	why: ({ part, by, path }: Args) =>
		`The ${leafWords(path)} comes from ${partWords(by)}, a lower rank; ${partWords(part)} chooses an ink and says none of its own.`,
	weight: () => 0.35
});

/** Fills of a higher rank that a tint or an opacity of a lower one makes paler. */
export function findTinted({ style, tables }: Trial): Finding[] {
	const findings = new Map<string, Finding>();
	for (const { key, resolved } of tables)
		resolved.leaves.forEach((leaves, signature) => {
			const fill = leaves.get('fill.ink');
			if (!fill || fill.value === 'none' || !parsePart(fill.part)) return;
			for (const path of ['fill.tint', 'fill.opacity'] as const) {
				const strength = leaves.get(path);
				if (!strength || strength.rank >= fill.rank || Number(strength.value) >= 1) continue;
				const args: Args = { part: fill.part, by: strength.part, path, value: Number(strength.value) };
				const id = `${args.part} ${args.by} ${path}`;
				if (findings.has(id)) continue;
				const { structure } = resolved;
				const slot = structure.cellSignature.indexOf(signature);
				const cell = slot < 0 ? undefined : structure.table.slots[slot];
				findings.set(
					id,
					found(tinted, args, {
						place: fill.part,
						...(cell !== undefined && { at: { key, cell } }),
						fixes: style.parts[fill.part]
							? [
									{
										words: `Full ${leafWords(path)} in ${partWords(fill.part)}`,
										leaves: [{ place: fill.part, path, value: 1 }]
									}
								]
							: []
					})
				);
			}
		});
	return [...findings.values()];
}
