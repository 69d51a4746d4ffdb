/** What the rest of Heptarch needs of files: open, write, work on. */
export { rowsOf } from './csv/rows.ts';
export type { WriteAsOptions } from './format.ts';
export { FORMATS, formatOf, type AnyDocument } from './formats.ts';
export { aboutKind, bareName, KINDS, kindWords, OUT_KINDS, type DocumentKind, type OutKind } from './kinds.ts';
export { kindOf, MAX_FILE_BYTES, openDocument } from './open.ts';
export { applyWorks } from './rewrite-rows.ts';
export { streamHtml, writeAs, writeStyled } from './write.ts';
