/** What programs are told of, with what it says to a person. */
export const EVENTS = {
	'edition.published': 'an edition of a style is out',
	'run.done': 'a run has come to its end',
	'finding.new': 'a document has findings that it did not have'
} as const;
export type EventName = keyof typeof EVENTS;
export const EVENT_NAMES = Object.keys(EVENTS) as EventName[];
