import { LENGTH_PATTERN } from '../units.ts';
import { COLUMN_KINDS } from '../table/roles.ts';
import { LINE_PATTERNS, LINE_PLACES, type Aspect, type LeafValue, type LinePlace, type PartSettings } from './types.ts';

/** An ink's name, a hex colour, or the explicit none. */
export const INK_PATTERN = '^(#[0-9A-Fa-f]{6}|[\\p{L}][\\p{L}\\p{N} _-]*)$';

export interface LeafDefinition {
	/** As in a trace: `fill.ink`, `lines.top.weight`. */
	readonly path: string;
	/** Which aspect carries it; `keep` leaves concern pages and are always carried. */
	readonly aspect: Aspect | null;
	/** Its JSON Schema, without null. */
	readonly schema: Readonly<Record<string, unknown>>;
}

const ink = { type: 'string', pattern: INK_PATTERN };
const share = { type: 'number', minimum: 0, maximum: 1 };
const length = { type: 'string', pattern: LENGTH_PATTERN };
const positive = { type: 'string', pattern: LENGTH_PATTERN.replace('-?', '') };
const flag = { type: 'boolean' };
const oneOf = (...values: readonly unknown[]) => ({ enum: values });
export const WEIGHT_SCHEMA = { type: 'integer', minimum: 1, maximum: 1000 };
export const CASE_SCHEMA = oneOf('none', 'upper', 'lower', 'title', 'small-caps');
export const SIZE_SCHEMA = positive;
export const TRACKING_SCHEMA = length;
export const FAMILY_SCHEMA = { type: 'string', minLength: 1, maxLength: 200 };

const leaf = (path: string, aspect: Aspect | null, schema: Record<string, unknown>): LeafDefinition => ({
	path,
	aspect,
	schema
});

/** Every leaf that a part can set, in the order of the canonical file. */
export const LEAVES: readonly LeafDefinition[] = [
	leaf('fill.ink', 'fill', ink),
	leaf('fill.tint', 'fill', share),
	leaf('fill.opacity', 'fill', share),
	leaf('text.role', 'text', { type: 'string', minLength: 1 }),
	leaf('text.family', 'text', FAMILY_SCHEMA),
	leaf('text.size', 'text', SIZE_SCHEMA),
	leaf('text.weight', 'text', WEIGHT_SCHEMA),
	leaf('text.italic', 'text', flag),
	leaf('text.underline', 'text', oneOf('none', 'single', 'double')),
	leaf('text.case', 'text', CASE_SCHEMA),
	leaf('text.tracking', 'text', TRACKING_SCHEMA),
	leaf('text.lineHeight', 'text', { type: 'number', exclusiveMinimum: 0, maximum: 10 }),
	leaf('text.ink', 'text', ink),
	leaf('align.h', 'alignment', oneOf('start', 'middle', 'end', 'justify', 'decimal')),
	leaf('align.v', 'alignment', oneOf('top', 'middle', 'bottom')),
	leaf('rotate', 'alignment', oneOf(0, 90, 270)),
	leaf('margin.top', 'margins', positive),
	leaf('margin.end', 'margins', positive),
	leaf('margin.bottom', 'margins', positive),
	leaf('margin.start', 'margins', positive),
	...LINE_PLACES.flatMap((place) => [
		leaf(`lines.${place}.pattern`, 'linework', oneOf(...LINE_PATTERNS)),
		leaf(`lines.${place}.weight`, 'linework', positive),
		leaf(`lines.${place}.ink`, 'linework', ink)
	]),
	leaf('format.kind', 'formats', oneOf('none', ...COLUMN_KINDS)),
	leaf('format.currency', 'formats', { type: 'string', pattern: '^[A-Z]{3}$' }),
	leaf('format.decimals', 'formats', { type: 'integer', minimum: 0, maximum: 20 }),
	leaf('format.grouping', 'formats', flag),
	leaf('format.negative', 'formats', oneOf('minus', 'parentheses')),
	leaf('format.zero', 'formats', { type: 'string', maxLength: 40 }),
	leaf('format.unit', 'formats', { type: 'string', maxLength: 40 }),
	leaf('format.date', 'formats', { type: 'string', minLength: 1, maxLength: 60 }),
	leaf('keep.together', null, flag),
	leaf('keep.withNext', null, flag),
	leaf('keep.repeat', null, flag)
];

const byPath = new Map(LEAVES.map((definition) => [definition.path, definition]));

export const leafDefinition = (path: string): LeafDefinition | undefined => byPath.get(path);

/** The leaves of a type role, in the order in which a part that names the role opens them. */
export const TYPE_ROLE_LEAVES = ['family', 'size', 'weight', 'case', 'tracking'] as const;

type Nested = { [key: string]: Nested | LeafValue | null | undefined };

const STEPS = LEAVES.map(({ path }) => ({ path, steps: path.split('.') }));
const known = new WeakMap<PartSettings, ReadonlyMap<string, LeafValue>>();

/** The leaves that a part sets, by path, in canonical order. Null is not set. Settings are immutable: asked again, the same map. */
export function leavesOf(settings: PartSettings): ReadonlyMap<string, LeafValue> {
	const before = known.get(settings);
	if (before) return before;
	const found = new Map<string, LeafValue>();
	for (const { path, steps } of STEPS) {
		let value: Nested | LeafValue | null | undefined = settings as Nested;
		for (const step of steps) value = value !== null && typeof value === 'object' ? value[step] : undefined;
		if (value !== null && value !== undefined && typeof value !== 'object') found.set(path, value);
	}
	known.set(settings, found);
	return found;
}

/** The inverse of {@link leavesOf}: nested settings in canonical order. */
export function settingsOf(leaves: ReadonlyMap<string, LeafValue>): PartSettings {
	const settings: Nested = {};
	for (const { path, steps } of STEPS) {
		const value = leaves.get(path);
		if (value === undefined) continue;
		let place: Nested = settings;
		for (const step of steps.slice(0, -1)) place = (place[step] ??= {}) as Nested;
		place[steps.at(-1)!] = value;
	}
	return settings as PartSettings;
}

/** A copy of `settings` with one leaf set, or unset where `value` is undefined. */
export function withLeaf(settings: PartSettings, path: string, value: LeafValue | undefined): PartSettings {
	const leaves = new Map(leavesOf(settings));
	if (value === undefined) leaves.delete(path);
	else leaves.set(path, value);
	return settingsOf(leaves);
}

/** The aspect that a leaf belongs to; undefined where it is about pages. */
export const aspectOfLeaf = (path: string): Aspect | undefined => leafDefinition(path)?.aspect ?? undefined;

export const linePath = (place: LinePlace, property: 'pattern' | 'weight' | 'ink'): string =>
	`lines.${place}.${property}`;
