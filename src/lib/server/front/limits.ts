import type { ProcessLimits } from './measured.ts';

/** A number from the environment, from 0. Throws where it is none. */
export function numberIn(env: NodeJS.ProcessEnv, name: string, otherwise: number): number {
	const value = Number(env[name] || otherwise);
	if (!Number.isFinite(value) || value < 0) throw new Error(`${name} is to be a number from 0, and is “${env[name]}”.`);
	return value;
}

/** What one job may take, as the environment sets it: `HEPTARCH_JOB_MEMORY` in MB, `HEPTARCH_JOB_SECONDS` of computing. */
export const limitsOf = (env: NodeJS.ProcessEnv): ProcessLimits => ({
	memory: numberIn(env, 'HEPTARCH_JOB_MEMORY', 1_000) * 2 ** 20,
	seconds: numberIn(env, 'HEPTARCH_JOB_SECONDS', 120)
});
