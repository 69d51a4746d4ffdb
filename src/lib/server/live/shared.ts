import { databaseUrl, db } from '../database.ts';
import { Hub } from './hub.ts';

let shared: Hub | undefined;

/** The hub of this process; it ends its streams when the process is to stop, so that they keep nobody waiting. */
export function hub(): Hub {
	if (shared) return shared;
	const { HEPTARCH_POOLER, HEPTARCH_LISTEN } = process.env;
	const opened = new Hub(db(), HEPTARCH_LISTEN ?? (HEPTARCH_POOLER ? undefined : databaseUrl()));
	for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void opened.close());
	return (shared = opened);
}
