// Notices of everything by others that the application ships: name, version, licence and its text, fonts among them.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const read = (folder) => JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));

/** The folder of a package as one that stands in `from` finds it; undefined where it is not installed (an optional one). */
function folderOf(name, from) {
	for (let at = from; ; at = dirname(at)) {
		const folder = join(at, 'node_modules', name);
		if (existsSync(join(folder, 'package.json'))) return folder;
		if (dirname(at) === at) return undefined;
	}
}

/** Folders of all packages that the one in `root` needs to run, itself left out. */
export function needed(root) {
	const found = new Map();
	const take = (from, names) => {
		for (const name of names) {
			const folder = folderOf(name, from);
			if (!folder || found.has(folder)) continue;
			const about = read(folder);
			found.set(folder, about);
			take(folder, Object.keys({ ...about.dependencies, ...about.optionalDependencies }));
		}
	};
	take(root, Object.keys(read(root).dependencies));
	return found;
}

/** The files of a package that say its licence; of a folder of them, each. */
const textsIn = (folder) =>
	readdirSync(folder, { withFileTypes: true })
		.filter(({ name }) => /^(licen[cs]es?|copying|notice|ofl)/i.test(name))
		.flatMap((entry) => {
			const path = join(folder, entry.name);
			return entry.isDirectory() ? readdirSync(path).map((name) => join(path, name)) : [path];
		});

/** One text with the notices of all packages that the one in `root` needs, by name. */
export function notices(root) {
	const line = '-'.repeat(72);
	return [...needed(root)]
		.sort(([, a], [, b]) => (a.name < b.name ? -1 : 1))
		.map(([folder, { name, version, license, homepage }]) => {
			const texts = textsIn(folder).map((file) => readFileSync(file, 'utf8').trim());
			const head = [`${name} ${version}`, `Licence: ${license ?? 'see its text'}`, homepage].filter(Boolean).join('\n');
			return [head, ...texts].join('\n\n');
		})
		.join(`\n\n${line}\n\n`);
}

/** For Vite: puts the notices into what the browser can get, as `third-party-notices.txt`. */
export const noticesPlugin = () => ({
	name: 'heptarch-notices',
	applyToEnvironment: ({ name }) => name === 'client',
	generateBundle() {
		this.emitFile({ type: 'asset', fileName: 'third-party-notices.txt', source: notices(process.cwd()) });
	}
});
