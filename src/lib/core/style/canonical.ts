import { leavesOf, settingsOf } from './leaves.ts';
import { comparePartNames } from './parts.ts';
import type { Style } from './types.ts';

function sorted<T>(record: Record<string, T>): Record<string, T> {
	return Object.fromEntries(Object.entries(record).sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0)));
}

/** The one way to write a style: fixed key order, parts weakest first, no nulls, no empty groups. */
export function canonicalStyle(style: Style): Style {
	const parts = Object.entries(style.parts)
		.map(([name, settings]) => [name, settingsOf(leavesOf(settings))] as const)
		.filter(([, settings]) => Object.keys(settings).length > 0)
		.sort(([a], [b]) => comparePartNames(a, b));
	return {
		format: 'heptarch-style',
		version: 1,
		name: style.name,
		...(style.description && { description: style.description }),
		...(style.category && { category: style.category }),
		basedOn: style.basedOn ?? null,
		...(style.reading && { reading: style.reading }),
		...(style.inks && Object.keys(style.inks).length && { inks: sorted(style.inks) }),
		...(style.typeRoles && Object.keys(style.typeRoles).length && { typeRoles: sorted(style.typeRoles) }),
		...(style.bands && { bands: style.bands }),
		parts: Object.fromEntries(parts),
		...(style.bases?.length && { bases: style.bases.map(canonicalStyle) }),
		...(style.rules?.length && {
			rules: style.rules.map((rule) => ({
				name: rule.name,
				where: rule.where,
				...(rule.extends && { extends: rule.extends }),
				...(rule.off && { off: true }),
				set: settingsOf(leavesOf(rule.set))
			}))
		})
	};
}

/** Canonical JSON text of a style, with a line feed at the end. */
export const styleText = (style: Style): string => JSON.stringify(canonicalStyle(style), null, 2) + '\n';
