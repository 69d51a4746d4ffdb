import type { About } from './about.ts';
import { css } from './css/about.ts';
import { csv } from './csv/about.ts';
import { docx } from './docx/about.ts';
import { html } from './html/about.ts';
import { json } from './json/about.ts';
import { odt } from './odt/about.ts';
import { pdf } from './pdf/about.ts';
import { svg } from './svg/about.ts';

/** Every format, in the order in which they are offered. */
const LISTED = [svg, docx, odt, html, pdf, css, csv, json] as const;
type Listed = (typeof LISTED)[number];

/** What tables can be written as. */
export type OutKind = Listed['kind'];
/** What can be opened. */
export type DocumentKind = Extract<Listed, { readonly opens: true }>['kind'];

export const KINDS: readonly (About & { readonly kind: OutKind })[] = LISTED;
export const OUT_KINDS: readonly OutKind[] = KINDS.map(({ kind }) => kind);
export const OPENED: readonly (About & { readonly kind: DocumentKind })[] = LISTED.filter(
	(one): one is Extract<Listed, { readonly opens: true }> => one.opens
);

const byKind = new Map<string, About & { readonly kind: OutKind }>(KINDS.map((one) => [one.kind, one]));
export const aboutKind = (kind: OutKind): About & { readonly kind: OutKind } => byKind.get(kind)!;
/** What documents of a kind are called; the kind itself where it is none. */
export const kindWords = (kind: string): string => byKind.get(kind)?.words ?? kind;

/** What a file chooser takes: the endings of some formats, by default of all that can be opened. */
export const accepted = (isMeant: (about: About) => boolean = () => true): string =>
	OPENED.filter(isMeant)
		.flatMap(({ endings }) => endings.map((ending) => `.${ending}`))
		.join(',');

/** The ending of a name, in small letters; '' where it has none. */
export const endingOf = (name: string): string => /\.([a-z]+)$/i.exec(name)?.[1]?.toLowerCase() ?? '';

/** A file's name without the ending that says its kind. */
export function bareName(name: string): string {
	for (const { nameEnding } of OPENED)
		if (nameEnding && name.toLowerCase().endsWith(nameEnding)) return name.slice(0, -nameEnding.length);
	const ending = endingOf(name);
	return OPENED.some(({ endings }) => endings.includes(ending)) ? name.slice(0, -ending.length - 1) : name;
}
