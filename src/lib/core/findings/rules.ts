import type { Finding, Trial } from './types.ts';

/** Cell rules that hit nothing on any table tried, and rules that later ones hide wherever they hit. */
export function findIdleRules({ style, flat, tables }: Trial): Finding[] {
	const findings: Finding[] = [];
	for (const rule of flat.rules) {
		if (rule.off) continue;
		const place = `rule:${rule.name}`;
		const own = style.rules?.some(({ name }) => name === rule.name);
		const fixes = own ? [{ words: `Take “${rule.name}” out`, removeRule: rule.name }] : [];
		let hits = false;
		let shows = false;
		const hiders = new Set<string>();
		for (const { resolved } of tables)
			resolved.structure.signatures.forEach(({ parts }, signature) => {
				if (!parts.some(({ name }) => name === place)) return;
				hits = true;
				for (const path of rule.leaves.keys()) {
					if (path.startsWith('lines.')) shows = true;
					const winner = resolved.leaves[signature]!.get(path);
					if (winner?.part === place) shows = true;
					else if (winner) hiders.add(winner.part.startsWith('rule:') ? `“${winner.part.slice(5)}”` : winner.part);
				}
			});
		if (rule.leaves.size === 0)
			findings.push({
				kind: 'rule',
				what: `Rule “${rule.name}” sets nothing`,
				why: 'It may hit cells, but there is nothing that it would change in them.',
				place,
				fixes,
				weight: 0.2
			});
		else if (!hits)
			findings.push({
				kind: 'rule',
				what: `Rule “${rule.name}” hits no cell on the sheet`,
				why: 'Its condition holds nowhere on these specimens: a column may be called otherwise, or a value never comes.',
				place,
				fixes,
				weight: 0.2
			});
		else if (!shows)
			findings.push({
				kind: 'rule',
				what: `Rule “${rule.name}” never shows`,
				why: `Wherever it hits, ${[...hiders].join(', ')} says otherwise and comes later.`,
				place,
				fixes,
				weight: 0.25
			});
	}
	return findings;
}
