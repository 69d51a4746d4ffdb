import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** When a file or anything in a folder was last changed, in milliseconds; 0 where it is missing. */
export function newest(path) {
	const info = statSync(path, { throwIfNoEntry: false });
	if (!info?.isDirectory()) return info?.mtimeMs ?? 0;
	return readdirSync(path).reduce((latest, name) => Math.max(latest, newest(join(path, name))), info.mtimeMs);
}
