import { leafDefinition } from '../properties/index.ts';
import type { LeafValue } from './types.ts';

export { linePlaceWords } from '../properties/lines.ts';

/** A leaf as people read it: "fill", "line above, weight". */
export const leafWords = (path: string): string => leafDefinition(path)?.words ?? path;

/** A leaf's value as people read it: 8 %, "italic", "1.5pt". */
export const valueWords = (path: string, value: LeafValue): string =>
	leafDefinition(path)?.say?.(value) ?? String(value);

/** Line widths of ISO 128-2 (§6.1), as lengths. */
export const ISO_WEIGHTS = ['0.13mm', '0.18mm', '0.25mm', '0.35mm', '0.5mm', '0.7mm', '1mm', '1.4mm', '2mm'] as const;
