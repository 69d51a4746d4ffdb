import { findingKind, found, type Finding } from './finding.ts';
import type { Trial } from './trial.ts';

interface Args {
	readonly rule: string;
	readonly idle: 'sets nothing' | 'hits nothing' | 'never shows';
	/** Who says otherwise wherever it hits. */
	readonly hiders: readonly string[];
}

const WHAT = {
	'sets nothing': 'sets nothing',
	'hits nothing': 'hits no cell on the sheet',
	'never shows': 'never shows'
};
const WHY: Record<Args['idle'], (args: Args) => string> = {
	'sets nothing': () => 'It may hit cells, but there is nothing that it would change in them.',
	'hits nothing': () =>
		'Its condition holds nowhere on these specimens: a column may be called otherwise, or a value never comes.',
	'never shows': ({ hiders }) => `Wherever it hits, ${hiders.join(', ')} says otherwise and comes later.`
};

export const idleRule = findingKind({
	code: 'rule',
	called: 'rule that hits nothing',
	of: ['style'],
	words: ({ rule, idle }: Args) => `Rule “${rule}” ${WHAT[idle]}`,
	why: (args: Args) => WHY[args.idle](args),
	weight: ({ idle }: Args) => (idle === 'never shows' ? 0.25 : 0.2)
});

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
		const idle = rule.leaves.size === 0 ? 'sets nothing' : !hits ? 'hits nothing' : !shows ? 'never shows' : undefined;
		if (idle) findings.push(found(idleRule, { rule: rule.name, idle, hiders: [...hiders] }, { place, fixes }));
	}
	return findings;
}
