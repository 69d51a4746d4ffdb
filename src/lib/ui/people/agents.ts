const BROWSERS: readonly (readonly [RegExp, string])[] = [
	[/Firefox\//, 'Firefox'],
	[/Edg\//, 'Edge'],
	[/Chrom(e|ium)\//, 'Chromium'],
	[/Safari\//, 'Safari']
];
const SYSTEMS: readonly (readonly [RegExp, string])[] = [
	[/Android/, 'Android'],
	[/iPhone|iPad/, 'iOS'],
	[/Windows/, 'Windows'],
	[/Mac OS X/, 'macOS'],
	[/Linux/, 'Linux']
];
const found = (agent: string, among: readonly (readonly [RegExp, string])[]) =>
	among.find(([pattern]) => pattern.test(agent))?.[1];

/** What a browser says of itself (RFC 9110, *User-Agent*), in as few words as tell one's own apart. */
export function agentWords(agent: string | null): string {
	const words = [found(agent ?? '', BROWSERS), found(agent ?? '', SYSTEMS)].filter((word) => word !== undefined);
	return words.length ? words.join(' on ') : 'A program';
}
