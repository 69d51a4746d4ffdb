import type { ErrorBody } from '$lib/server/answers.ts';

declare global {
	namespace App {
		interface Error extends ErrorBody {
			message: string;
		}
	}
}

export {};
