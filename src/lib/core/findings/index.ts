import type { Appearance } from '../cascade/look.ts';
import type { Table } from '../table/grid.ts';
import { faintBands, findFaintBands } from './bands.ts';
import { findContrast, findLowContrast, lowContrastOf } from './contrast.ts';
import { family, findFamilies } from './families.ts';
import { findFigures } from './figures.ts';
import type { Finding, FindingKind } from './finding.ts';
import { markInDoubt } from './mark-doubt.ts';
import { findThinLines, thinLine } from './lines.ts';
import { findNoHeader, noHeader } from './no-header.ts';
import { findNotAligned, notAligned } from './not-aligned.ts';
import { findUnknownInks, findUnreachableParts, unknownInk, unreachable } from './parts.ts';
import { behind, covers, outside, small } from './plotted.ts';
import { findIdleRules, idleRule } from './rules.ts';
import { sumPartial } from './sum-partial.ts';
import { findTinted, tinted } from './tinted.ts';
import { totalOff } from './total-off.ts';
import type { Trial } from './trial.ts';
import { unitsMixed } from './units-mixed.ts';

export type { Finding, Fix } from './finding.ts';
export { withFix, type Trial, type Tried } from './trial.ts';

/** Every kind of finding. */
export const FINDING_KINDS: readonly FindingKind[] = [
	unknownInk,
	lowContrastOf,
	faintBands,
	family,
	thinLine,
	idleRule,
	unreachable,
	tinted,
	totalOff,
	sumPartial,
	unitsMixed,
	markInDoubt,
	noHeader,
	notAligned,
	small,
	outside,
	covers,
	behind
];

/** What findings of a kind are called; the code itself where there is no such kind. */
export const findingCalled = (code: string): string => FINDING_KINDS.find((kind) => kind.code === code)?.called ?? code;

const IN_STYLES: readonly ((trial: Trial) => Finding[])[] = [
	findUnknownInks,
	findContrast,
	findFaintBands,
	findFamilies,
	findThinLines,
	findIdleRules,
	findUnreachableParts,
	findTinted
];

/** Everything about a style that a designer should know, worst first. */
export const findingsOf = (trial: Trial): Finding[] =>
	IN_STYLES.flatMap((find) => find(trial)).sort((a, b) => b.weight - a.weight);

/** What a person should look at in a table: its figures, contrast, a missing header, figures that do not line up. */
export const findingsIn = ({
	table,
	appearance
}: {
	readonly table: Table;
	readonly appearance: Appearance;
}): Finding[] => [
	...findFigures(table),
	...findLowContrast(table, appearance),
	...findNoHeader(table.roles),
	...findNotAligned(table, appearance)
];

/** A finding with its place in words: "row 3, column 2: total is off by 0.30". */
export function placedWords({ r, c, words }: Pick<Finding, 'r' | 'c' | 'words'>): string {
	const place = [
		r === undefined ? [] : [`row ${r + 1}`],
		r === undefined || c === undefined ? [] : [`column ${c + 1}`]
	].flat();
	return place.length ? `${place.join(', ')}: ${words}` : words;
}
