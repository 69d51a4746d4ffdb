import type { ErrorBody } from '$lib/server/http/answers.ts';

declare global {
	namespace App {
		interface Error extends ErrorBody {
			message: string;
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
