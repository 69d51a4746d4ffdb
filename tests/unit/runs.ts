/**
 * How often a property of whole files is tried: `count` times for every change, `HEPTARCH_RUNS` times as often where that
 * is set, as for a night.
 */
export const runs = (count: number): number => Math.ceil(count * (Number(process.env.HEPTARCH_RUNS) || 1));
