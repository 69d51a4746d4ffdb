import type { PartSettings } from '../properties/index.ts';
import type { LinePlace } from '../properties/vocabulary.ts';
import type { ColumnKind } from '../table/columns.ts';
import type { Comparison } from './comparisons.ts';

export type { PartSettings } from '../properties/index.ts';
export {
	ASPECTS,
	LINE_PATTERNS,
	LINE_PLACES,
	type Aspect,
	type LeafValue,
	type LinePattern,
	type LinePlace
} from '../properties/vocabulary.ts';

export type LineSettings = NonNullable<NonNullable<PartSettings['lines']>[LinePlace]>;

export interface TypeRole {
	family?: string;
	size?: string;
	weight?: number;
	case?: NonNullable<NonNullable<PartSettings['text']>['case']>;
	tracking?: string;
}

export interface Bands {
	rows?: { sizes?: number[]; restartAtGroups?: boolean };
	columns?: { sizes?: number[] };
}

/** A condition without `all`, `any`, `not` in it: what it is about (any cell where nothing is said), and how it compares. */
export interface Test {
	readonly column?: string;
	readonly kind?: ColumnKind;
	readonly any?: true;
	/** Roles or families of roles; body rows where absent. */
	readonly rows?: readonly string[];
	readonly is: Comparison;
	readonly value?: unknown;
}

export type Condition =
	{ readonly all: readonly Condition[] } | { readonly any: readonly Condition[] } | { readonly not: Condition } | Test;

export interface CellRule {
	name: string;
	where: Condition;
	extends?: 'cell' | 'row' | 'column';
	/** Kept in the style, but says nothing for now. */
	off?: boolean;
	set: PartSettings;
}

/** A style as its file says it (engine §3). */
export interface Style {
	format: 'heptarch-style';
	version: 1;
	name: string;
	description?: string;
	category?: string;
	basedOn?: string | null;
	reading?: 'down' | 'up';
	inks?: Record<string, string>;
	typeRoles?: Record<string, TypeRole>;
	bands?: Bands;
	parts: Record<string, PartSettings>;
	bases?: Style[];
	rules?: CellRule[];
}
