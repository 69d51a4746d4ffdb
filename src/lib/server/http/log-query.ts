import { InputError } from '../../core/errors.ts';
import type { LogQuery } from '../house/log.ts';
import { isUuid } from './requests.ts';

/** What is asked of the log in an address. Throws InputError. */
export function logQuery(query: URLSearchParams): LogQuery {
	const [person, day, before] = ['person', 'day', 'before'].map((name) => query.get(name) || undefined);
	if (person !== undefined && !isUuid(person)) throw new InputError('request', 'This is no person’s id.', '/person');
	if (day !== undefined && (!/^\d{4}-\d{2}-\d{2}$/.test(day) || Number.isNaN(Date.parse(day))))
		throw new InputError('request', 'A day is written as 2031-04-05.', '/day');
	if (before !== undefined && !/^\d{1,15}$/.test(before))
		throw new InputError('request', 'An entry has a number.', '/before');
	return { person, day, before: before === undefined ? undefined : Number(before) };
}
