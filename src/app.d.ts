import type { ErrorBody } from '$lib/server/http/answers.ts';

declare global {
	namespace App {
		interface Error extends ErrorBody {
			message: string;
		}
		interface Locals {
			/** Whether this request failed by what will be over. */
			isPassing?: boolean;
		}
	}
}

export {};

declare module 'svelte/elements' {
	// WAI-ARIA 1.3.
	interface AriaAttributes {
		'aria-description'?: string | null | undefined;
	}
}
