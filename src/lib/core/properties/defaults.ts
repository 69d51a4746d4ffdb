import type { Emu } from '../units.ts';

/*
 * What holds where nobody says anything: what a blank page has.
 */

export const DEFAULT_FAMILY = 'Source Serif 4';
/** 10.5 pt. */
export const DEFAULT_SIZE = 133_350 as Emu;
export const DEFAULT_WEIGHT = 400;
/** A line's height for a size of 1 and a line height of 1. */
export const LEADING = 1.25;
/** Of a line whose weight nobody says, as a style writes it. */
export const DEFAULT_LINE_WEIGHT = '0.5pt';
