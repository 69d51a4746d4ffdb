/** Done; findings or differences; bad input or usage. */
export type ExitCode = 0 | 1 | 2;

export interface Arguments {
	readonly positionals: readonly string[];
	readonly values: Readonly<Record<string, string | boolean | undefined>>;
}
