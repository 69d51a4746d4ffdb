import { parseLength } from '../units.ts';

/** Papers that a report can be printed on, upright (ISO 216). */
export const PAPERS = {
	A4: { width: parseLength('210mm'), height: parseLength('297mm') },
	A3: { width: parseLength('297mm'), height: parseLength('420mm') },
	A5: { width: parseLength('148mm'), height: parseLength('210mm') },
	letter: { width: parseLength('8.5in'), height: parseLength('11in') }
} as const;
export type PaperName = keyof typeof PAPERS;

export interface Paper {
	readonly name: PaperName;
	/** On its long side: for wide tables. */
	readonly across: boolean;
}
