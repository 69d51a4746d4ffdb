import { plural } from '../../core/words.ts';
import { InputError } from '../../core/errors.ts';
import { styleCss } from '../../core/share/css.ts';
import type { Format } from '../format.ts';
import { lostLeaves } from '../html/properties/index.ts';
import { givesStyle, prepare, type Prepared } from '../job.ts';
import { plainAccount } from '../plain.ts';
import { tallyOf } from '../tally.ts';
import { css as about } from './about.ts';

export const css: Format = {
	...about,
	make({ document, jobs, options }) {
		const prepared = prepare(document, jobs, options);
		if (prepared.length === 0)
			throw new InputError('no-style', 'No table here wears a house style, so there is no style sheet to write.');
		const styles = new Map(
			prepared.flatMap(({ job, resolved: { style } }) => (givesStyle(job) ? [[style.name, style]] : []))
		);
		const sheet = [...styles.values()].map((style) => styleCss(style, options.house)).join('\n');
		const living = (one: Prepared) => tallyOf(one, lostLeaves, new Map());
		return {
			bytes: new TextEncoder().encode(sheet),
			account: plainAccount(document, prepared, living, sheetRemarks(prepared))
		};
	}
};

/** What a style sheet leaves out of these tables. */
function sheetRemarks(prepared: readonly Prepared[]): string[] {
	const touched = prepared.filter(({ job }) => job.table.touches.length > 0).length;
	const isRuled = prepared.some(({ resolved }) => resolved.style.rules.length > 0);
	return [
		...(touched
			? [`A style sheet says nothing of single cells: the touches of ${plural(touched, 'table')} are left out.`]
			: []),
		...(isRuled ? ['CSS has no conditions: a cell rule is a class, to be put on the cells that it is for.'] : [])
	];
}
