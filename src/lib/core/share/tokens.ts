import type { House } from '../house.ts';
import { InputError } from '../errors.ts';
import { toHex } from '../colour.ts';
import { INK_PATTERN } from '../properties/property.ts';
import type { TypeRole } from '../style/types.ts';
import { parseLength, toPixels } from '../units.ts';

/*
 * Inks and type roles as Design Tokens (Design Tokens Community Group format, 2025.10): inks as `color` tokens in the
 * group `ink`, type roles as `typography` tokens in the group `type-role`. What a typography token cannot say exactly
 * (points, case) rides in `$extensions`.
 */

const EXTENSION = 'org.heptarch';

type Json = { [key: string]: unknown };

const dimension = (length: string) => ({ value: Number(toPixels(parseLength(length)).toFixed(3)), unit: 'px' });

function typographyToken(role: TypeRole): Json {
	return {
		$type: 'typography',
		$value: {
			...(role.family !== undefined && { fontFamily: role.family }),
			...(role.size !== undefined && { fontSize: dimension(role.size) }),
			...(role.weight !== undefined && { fontWeight: role.weight }),
			...(role.tracking !== undefined && { letterSpacing: dimension(role.tracking) })
		},
		$extensions: { [EXTENSION]: role }
	};
}

function colourToken(hex: string): Json {
	const components = [1, 3, 5].map((at) => Number((parseInt(hex.slice(at, at + 2), 16) / 255).toFixed(5)));
	return { $type: 'color', $value: { colorSpace: 'srgb', components, hex: hex.toLowerCase() } };
}

/** The inks and type roles of a house as a Design Tokens file. */
export function tokensOf(house: House): Json {
	const map = <T>(record: Readonly<Record<string, T>>, token: (value: T) => Json) =>
		Object.fromEntries(Object.entries(record).map(([name, value]) => [name, token(value)]));
	return { ink: map(house.inks, colourToken), 'type-role': map(house.typeRoles, typographyToken) };
}

const isObject = (value: unknown): value is Json =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

/** A colour value: a hex string of older files, or an object with a hex or sRGB components. */
function readColour(value: unknown, where: string): string {
	const text =
		typeof value === 'string' ? value : isObject(value) && typeof value.hex === 'string' ? value.hex : undefined;
	if (text !== undefined) {
		const hex = toHex(text.slice(0, 7));
		if (hex) return hex;
	}
	if (isObject(value) && Array.isArray(value.components)) {
		const space = String(value.colorSpace ?? 'srgb');
		const parts = value.components.map((part) => (part === 'none' ? 0 : Number(part)));
		if (parts.length >= 3 && parts.every(Number.isFinite)) {
			const css =
				space === 'srgb'
					? `color(srgb ${parts.slice(0, 3).join(' ')})`
					: space === 'oklch' || space === 'lab' || space === 'oklab' || space === 'lch'
						? `${space}(${parts.slice(0, 3).join(' ')})`
						: space === 'hsl'
							? `hsl(${parts[0]} ${parts[1]}% ${parts[2]}%)`
							: `color(${space} ${parts.slice(0, 3).join(' ')})`;
			const hex = toHex(css);
			if (hex) return hex;
		}
	}
	throw new InputError('tokens', `The token at ${where} is not a colour that can be read.`, where);
}

const points = (pixels: number) => `${Number((pixels * 0.75).toFixed(3))}pt`;

/** A dimension as a length in points; undefined for units that depend on the reader (rem without a base is 16 px). */
function readDimension(value: unknown): string | undefined {
	const match = typeof value === 'string' ? /^(-?[\d.]+)\s*(px|rem|pt|mm|cm|in)$/.exec(value) : undefined;
	const [amount, unit] = match
		? [Number(match[1]), match[2]]
		: isObject(value)
			? [Number(value.value), String(value.unit)]
			: [NaN, ''];
	if (!Number.isFinite(amount)) return undefined;
	if (unit === 'px') return points(amount);
	if (unit === 'rem') return points(amount * 16);
	return `${amount}${unit}`;
}

const WEIGHTS: Record<string, number> = {
	thin: 100,
	light: 300,
	normal: 400,
	regular: 400,
	medium: 500,
	'semi-bold': 600,
	bold: 700,
	black: 900
};

function readTypography(value: unknown, extension: unknown, where: string): TypeRole {
	if (isObject(extension) && Object.keys(extension).length) return extension as TypeRole;
	if (!isObject(value)) throw new InputError('tokens', `The token at ${where} is not typography.`, where);
	const family = Array.isArray(value.fontFamily) ? value.fontFamily[0] : value.fontFamily;
	const size = readDimension(value.fontSize);
	const weight =
		typeof value.fontWeight === 'string' ? WEIGHTS[value.fontWeight.toLowerCase()] : Number(value.fontWeight);
	const tracking = readDimension(value.letterSpacing);
	return {
		...(typeof family === 'string' && { family }),
		...(size && { size }),
		...(weight && { weight: Math.round(weight) }),
		...(tracking && tracking !== '0pt' && { tracking })
	};
}

const inkName = new RegExp(INK_PATTERN, 'u');

/**
 * Reads a Design Tokens file. Groups may be nested: a token is named by its own key, or by its whole path where that is
 * taken. Aliases `{a.b}` are followed. Tokens of other types are left out and counted. Throws InputError for what is no
 * such file, for a colour that cannot be read, and for aliases that lead nowhere or in a circle.
 */
export function readTokens(file: unknown): {
	inks: Record<string, string>;
	typeRoles: Record<string, TypeRole>;
	left: number;
} {
	if (!isObject(file)) throw new InputError('tokens', 'This is not a Design Tokens file: it is no JSON object.', '/');
	const tokens = new Map<string, { type: string | undefined; value: unknown; extension: unknown }>();
	const walk = (node: Json, path: string[], type: string | undefined, depth: number) => {
		if (depth > 50) throw new InputError('tokens', `The groups at ${path.slice(0, 3).join('.')} are nested too deep.`);
		const own = typeof node.$type === 'string' ? node.$type : type;
		if ('$value' in node) {
			const extensions = isObject(node.$extensions) ? node.$extensions[EXTENSION] : undefined;
			tokens.set(path.join('.'), { type: own, value: node.$value, extension: extensions });
			return;
		}
		for (const [key, child] of Object.entries(node))
			if (!key.startsWith('$') && isObject(child)) walk(child, [...path, key], own, depth + 1);
	};
	walk(file, [], undefined, 0);
	if (tokens.size === 0)
		throw new InputError('tokens', 'This file holds no design token (nothing in it has a $value).', '/');
	const follow = (
		path: string,
		seen: readonly string[]
	): { type: string | undefined; value: unknown; extension: unknown } => {
		const token = tokens.get(path);
		if (!token)
			throw new InputError(
				'tokens',
				`The token “${seen.at(-1)}” stands for “${path}”, which is not in the file.`,
				path
			);
		const alias = typeof token.value === 'string' ? /^\{(.+)\}$/.exec(token.value)?.[1] : undefined;
		if (!alias) return token;
		if (seen.includes(path))
			throw new InputError(
				'tokens',
				`These tokens stand for each other in a circle: ${[...seen, path].join(' → ')}.`,
				path
			);
		const target = follow(alias, [...seen, path]);
		return { ...target, type: token.type ?? target.type };
	};
	const inks: Record<string, string> = {};
	const typeRoles: Record<string, TypeRole> = {};
	let left = 0;
	for (const path of tokens.keys()) {
		const { type, value, extension } = follow(path, []);
		const key = path.slice(path.lastIndexOf('.') + 1);
		const nameIn = (record: object) => {
			const name = key in record ? path.replaceAll('.', ' ') : key;
			const clean = name.replace(/[^\p{L}\p{N} _-]/gu, ' ').trim();
			return /^\p{L}/u.test(clean) ? clean : `ink ${clean}`.trim();
		};
		if (type === 'color') {
			const name = nameIn(inks);
			if (!inkName.test(name) || name === 'none') left++;
			else inks[name] = readColour(value, path);
		} else if (type === 'typography') typeRoles[nameIn(typeRoles)] = readTypography(value, extension, path);
		else left++;
	}
	return { inks, typeRoles, left };
}
