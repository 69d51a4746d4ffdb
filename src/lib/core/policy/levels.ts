import { listed, plural } from '../words.ts';
import { LEVELS, type Level } from './rule.ts';

/** “1 must, 2 warnings and 3 wishes”: how much of each level, the gravest first; undefined where there is nothing. */
export function levelWords(levels: readonly Level[]): string | undefined {
	const said = LEVELS.toReversed().flatMap((level) => {
		const count = levels.filter((one) => one === level).length;
		return count ? [plural(count, level, level === 'wish' ? 'wishes' : `${level}s`)] : [];
	});
	return said.length ? listed(said) : undefined;
}
