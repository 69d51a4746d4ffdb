import type { ChildProcess, StdioOptions } from 'node:child_process';

export interface Cluster {
	readonly url: string;
	stop(): void;
	/** Stops it as a power cut would, and leaves its data. */
	halt(): void;
	/** Brings it back on the same port. */
	start(): void;
}
export function ownDatabase(options?: { throwAway?: boolean }): Promise<Cluster>;
/** Brings a database to the present schema, with a house in it: the demo house, or an empty one. */
export function prepareDatabase(url: string, options: { demo: boolean }): void;
export function copyOf(kind: 'empty' | 'demo', clusterUrl: string): Promise<string>;
export function freePort(wanted?: number): Promise<number>;
export function serve(
	databaseUrl: string,
	options: { port: number; stdio?: StdioOptions; dev?: boolean; env?: Record<string, string>; program?: string }
): Promise<{ origin: string; child: ChildProcess }>;
