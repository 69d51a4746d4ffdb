import type { ColumnKind } from '../table/roles.ts';

/** The sides of a style that can be carried over, or left as they were, one by one. */
export const ASPECTS = ['text', 'fill', 'linework', 'alignment', 'margins', 'formats'] as const;
export type Aspect = (typeof ASPECTS)[number];

/** Thickest look first: the order in which two equally strong, equally thick lines are decided (engine §5.2). */
export const LINE_PATTERNS = ['double', 'triple', 'solid', 'dashed', 'dash-dot', 'dotted', 'wavy', 'none'] as const;
export type LinePattern = (typeof LINE_PATTERNS)[number];

export const LINE_PLACES = [
	'top',
	'bottom',
	'start',
	'end',
	'betweenRows',
	'betweenColumns',
	'diagonalDown',
	'diagonalUp'
] as const;
export type LinePlace = (typeof LINE_PLACES)[number];

/** A settings value as it stands in a style file. */
export type LeafValue = string | number | boolean;

export interface LineSettings {
	pattern?: LinePattern | null;
	weight?: string | null;
	ink?: string | null;
}

/** What one part sets, grouped as in the style file. A leaf that is absent (or null) is not set here. */
export interface PartSettings {
	fill?: { ink?: string | null; tint?: number | null; opacity?: number | null };
	text?: {
		role?: string | null;
		family?: string | null;
		size?: string | null;
		weight?: number | null;
		italic?: boolean | null;
		underline?: 'none' | 'single' | 'double' | null;
		case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps' | null;
		tracking?: string | null;
		lineHeight?: number | null;
		ink?: string | null;
	};
	align?: { h?: 'start' | 'middle' | 'end' | 'justify' | 'decimal' | null; v?: 'top' | 'middle' | 'bottom' | null };
	rotate?: 0 | 90 | 270 | null;
	margin?: { top?: string | null; end?: string | null; bottom?: string | null; start?: string | null };
	lines?: Partial<Record<LinePlace, LineSettings>>;
	format?: {
		kind?: 'none' | ColumnKind | null;
		currency?: string | null;
		decimals?: number | null;
		grouping?: boolean | null;
		negative?: 'minus' | 'parentheses' | null;
		zero?: string | null;
		unit?: string | null;
		date?: string | null;
	};
	keep?: { together?: boolean | null; withNext?: boolean | null; repeat?: boolean | null };
}

export interface TypeRole {
	family?: string;
	size?: string;
	weight?: number;
	case?: 'none' | 'upper' | 'lower' | 'title' | 'small-caps';
	tracking?: string;
}

export interface Bands {
	rows?: { sizes?: number[]; restartAtGroups?: boolean };
	columns?: { sizes?: number[] };
}

export type Condition =
	| { all: Condition[] }
	| { any: Condition[] }
	| { not: Condition }
	| ({ rows?: string[]; is: string; value?: unknown } & (
			{ column: string } | { kind: ColumnKind } | { any: true } | object
	  ));

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
