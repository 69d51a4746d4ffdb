import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types.js';

/** Whether this process answers at all; for whoever starts it again where it does not. */
export const GET: RequestHandler = () => json({ live: true });
