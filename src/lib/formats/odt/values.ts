import { amountText, isShare, type Figure } from '../../core/values/figure.ts';

/** What a cell says of its value, and of how it comes to be; stale once its text is another. */
export const VALUE_ATTRIBUTES =
	/\s+(?:office:(?:value-type|value|currency|date-value|time-value|boolean-value|string-value)|table:formula|calcext:value-type)\s*=\s*("[^"]*"|'[^']*')/g;

/**
 * The value of a cell beside its text (ODF 1.3 Part 3 §19.385 and those after it), with a space before. Nothing for a figure
 * in a unit: its value alone would say something else.
 */
export function valueAttributes(figure: Figure | undefined): string {
	if (!figure) return '';
	const { measure } = figure;
	const value = amountText(figure);
	if (measure.kind === 'date') return ` office:value-type="date" office:date-value="${value}"`;
	if (measure.kind === 'time') {
		const [hours, minutes, seconds] = value.split(':');
		return ` office:value-type="time" office:time-value="PT${hours}H${minutes}M${seconds}S"`;
	}
	if (isShare(measure)) return ` office:value-type="percentage" office:value="${value}"`;
	if (measure.kind === 'money' && /^[A-Z]{3}$/.test(measure.currency))
		return ` office:value-type="currency" office:currency="${measure.currency}" office:value="${value}"`;
	return measure.kind === 'plain' ? ` office:value-type="float" office:value="${value}"` : '';
}
