import type { Role } from '../../workbench/roles.ts';
import type { Requests, SCHEMAS } from '../http/requests.ts';

/** Who asks at the door for programs, as what, and in which house. */
export interface Asking {
	/** Of a person, or of a token. */
	readonly id: string;
	readonly name: string;
	readonly house: string;
	readonly role: Role;
}

/** A request, as an operation sees it. */
export interface Call {
	readonly who: Asking;
	readonly request: Request;
	readonly url: URL;
	/** What stands in the path for a name in braces. */
	readonly params: Readonly<Record<string, string>>;
	/** The version that `If-Match` names; undefined for `*`. */
	readonly seen: number | undefined;
}

export interface Answer {
	/** What is answered; absent where there is nothing to say. */
	readonly body?: unknown;
	/** What `ETag` names. */
	readonly version?: number | undefined;
	/** Where what was made is found, beneath `/api/v1`. */
	readonly location?: string;
	/** A file, instead of a body. */
	readonly file?: Response;
}

export interface Parameter {
	readonly name: string;
	readonly schema: object;
	readonly description: string;
	readonly required?: boolean;
}

/** One thing that programs may ask for. What it needs and takes is checked by it, and told by it (OpenAPI). */
export interface Operation {
	readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
	/** Beneath `/api/v1`, with names in braces. */
	readonly path: string;
	readonly id: string;
	readonly of: string;
	readonly summary: string;
	readonly more?: string;
	readonly needs: Role;
	readonly query?: readonly Parameter[];
	/** The kind of its JSON body, or a file as it is. */
	readonly takes?: keyof typeof SCHEMAS | 'file';
	/** The status and the schema of what it gives, by its name in `answers.ts`; `file` for a file. */
	readonly gives: { readonly status: 200 | 201 | 202 | 204; readonly schema?: string };
	/** Makes something: an `Idempotency-Key` is heeded. */
	readonly makes?: boolean;
	/** Changes something that has versions: `If-Match` is to be said. */
	readonly changes?: boolean;
	/** Tells the version in `ETag`. */
	readonly hasVersion?: boolean;
	readonly run: (call: Call) => Promise<Answer>;
}

export type Taken<K extends keyof Requests> = Requests[K];
