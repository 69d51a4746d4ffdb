import { findFaintBands } from './bands.ts';
import { findContrast } from './contrast.ts';
import { findFamilies } from './families.ts';
import { findThinLines } from './lines.ts';
import { findUnknownInks, findUnreachableParts } from './parts.ts';
import { findIdleRules } from './rules.ts';
import type { Finding, Trial } from './types.ts';

export { withFix, type Finding, type Fix, type Trial, type Tried } from './types.ts';

const FINDERS: readonly ((trial: Trial) => Finding[])[] = [
	findUnknownInks,
	findContrast,
	findFaintBands,
	findFamilies,
	findThinLines,
	findIdleRules,
	findUnreachableParts
];

/** Everything about a style that a designer should know, worst first. */
export const findingsOf = (trial: Trial): Finding[] =>
	FINDERS.flatMap((find) => find(trial)).sort((a, b) => b.weight - a.weight);
