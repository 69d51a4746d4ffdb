import { escapeXml } from '../escape.ts';
import { placedWords } from '../findings/index.ts';
import { plural } from '../words.ts';
import { POLICY_RULES, wantedWords, type Level, type Policy, type PolicyFault } from './policy.ts';

/** A file that was held against a policy, table by table. */
export interface JudgedFile {
	readonly file: string;
	readonly tables: readonly { readonly number: number; readonly faults: readonly PolicyFault[] }[];
}

const all = (files: readonly JudgedFile[]) =>
	files.flatMap(({ file, tables }) =>
		tables.flatMap(({ number, faults }) => faults.map((fault) => ({ file, number, fault })))
	);

/** Whether something fails that a policy says must be so. */
export const fails = (files: readonly JudgedFile[]): boolean => all(files).some(({ fault }) => fault.level === 'must');

/** A line for each fault, and a last one that counts them. */
export function inWords(files: readonly JudgedFile[]): string[] {
	const found = all(files);
	const count = (level: Level) => found.filter(({ fault }) => fault.level === level).length;
	return [
		...found.map(
			({ file, number, fault }) => `${file}, table ${number}, ${fault.level}: ${placedWords(fault)} (${fault.rule})`
		),
		found.length
			? `${plural(count('must'), 'must fails', 'musts fail')}, ${plural(count('warning'), 'warning')}, ${plural(count('wish'), 'wish', 'wishes')} in ${plural(files.length, 'file')}.`
			: 'Nothing to mention.'
	];
}

/** SARIF 2.1.0 §3.27.10: a wish is a note, a must is an error. */
const SARIF_LEVELS: Readonly<Record<Level, string>> = { wish: 'note', warning: 'warning', must: 'error' };

/** A path as a relative reference (RFC 3986 §4.2), as SARIF wants artifacts named. */
const addressOf = (file: string): string => file.replaceAll('\\', '/').split('/').map(encodeURIComponent).join('/');

/** The outcome as a log of SARIF 2.1.0 (OASIS). Places inside a table are logical locations (§3.33): it has no lines of text. */
export function asSarif(policy: Policy, files: readonly JudgedFile[], version: string): unknown {
	const rules = POLICY_RULES.filter(({ name }) => policy.rules.some(({ rule }) => rule === name)).map(({ name }) => {
		const wanted = policy.rules.find(({ rule }) => rule === name)!;
		return {
			id: name,
			shortDescription: { text: wantedWords(wanted) },
			defaultConfiguration: { level: SARIF_LEVELS[wanted.level] }
		};
	});
	const index = new Map(rules.map(({ id }, i) => [id, i]));
	return {
		$schema: 'https://json.schemastore.org/sarif-2.1.0.json',
		version: '2.1.0',
		runs: [
			{
				tool: { driver: { name: 'heptarch', version, rules } },
				artifacts: files.map(({ file }) => ({ location: { uri: addressOf(file) } })),
				results: all(files).map(({ file, number, fault }) => {
					const place = [
						`table ${number}`,
						...(fault.r === undefined ? [] : [`row ${fault.r + 1}`]),
						...(fault.c === undefined ? [] : [`column ${fault.c + 1}`])
					];
					return {
						ruleId: fault.rule,
						ruleIndex: index.get(fault.rule),
						level: SARIF_LEVELS[fault.level],
						message: { text: `Table ${number}: ${placedWords(fault)}.` },
						locations: [
							{
								physicalLocation: {
									artifactLocation: { uri: addressOf(file), index: files.findIndex((one) => one.file === file) }
								},
								logicalLocations: [{ name: `table ${number}`, fullyQualifiedName: place.join(', '), kind: 'element' }]
							}
						]
					};
				})
			}
		]
	};
}

/** The outcome as JUnit XML: a suite for each file, a case for each table; only what must be so is a failure. */
export function asJunit(files: readonly JudgedFile[]): string {
	const isFailure = ({ level }: PolicyFault) => level === 'must';
	const line = (fault: PolicyFault) => `${fault.level}: ${placedWords(fault)} (${fault.rule})`;
	const suites = files.map(({ file, tables }) => {
		const cases = tables.map(({ number, faults }) => {
			const bad = faults.filter(isFailure);
			const rest = faults.filter((fault) => !isFailure(fault));
			const inner = [
				...bad.map(
					(fault) =>
						`<failure type="${escapeXml(fault.rule)}" message="${escapeXml(fault.wanted)}">${escapeXml(placedWords(fault))}</failure>`
				),
				...(rest.length ? [`<system-out>${escapeXml(rest.map(line).join('\n'))}</system-out>`] : [])
			].join('');
			const open = `<testcase classname="${escapeXml(file)}" name="table ${number}"`;
			return inner ? `\t\t${open}>${inner}</testcase>` : `\t\t${open}/>`;
		});
		const failed = tables.filter(({ faults }) => faults.some(isFailure)).length;
		return `\t<testsuite name="${escapeXml(file)}" tests="${tables.length}" failures="${failed}" errors="0" skipped="0">\n${cases.join('\n')}\n\t</testsuite>`;
	});
	return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites>\n${suites.join('\n')}\n</testsuites>`;
}
