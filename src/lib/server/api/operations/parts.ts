import { readId } from '../../http/requests.ts';
import type { Call, Parameter } from '../operation.ts';

export const text = { type: 'string' } as const;
export const flag = { enum: ['0', '1'] } as const;
export const query = (name: string, schema: object, description: string): Parameter => ({ name, schema, description });
export const after = query('after', text, 'what the page before gave as “next”');
export const documentId = ({ params }: Call) => readId(params.document!, 'document');

/** Where something stands after a change of it. */
export const standing = ({
	step,
	version,
	published = []
}: {
	step: number;
	version: number;
	published?: readonly string[];
}) => ({
	body: { step, version, published },
	version
});
