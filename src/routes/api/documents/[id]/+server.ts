import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { removeDocument } from '$lib/server/documents.ts';
import { readId } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

export const DELETE: RequestHandler = ({ params }) => answer(() => removeDocument(db(), readId(params.id, 'document')));
