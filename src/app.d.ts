import type { ErrorBody } from '$lib/server/http/answers.ts';
import type { Who } from '$lib/server/people/who.ts';

declare global {
	namespace App {
		interface Error extends ErrorBody {
			message: string;
		}
		interface Locals {
			/** Whether this request failed by what will be over. */
			isPassing?: boolean;
			/** Who asks, where that was asked; undefined where nobody is signed in. */
			who?: Who;
			/** Why it could not be found out who asks. */
			unknown?: unknown;
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
