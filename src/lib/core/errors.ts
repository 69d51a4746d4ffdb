/**
 * The one error that the core and the formats throw for bad input. `message` is a whole sentence for a
 * person; `where` names the place in the input (a path, a part, a row and column); `code` is for programs.
 */
export class InputError extends Error {
	override readonly name = 'InputError';
	constructor(
		readonly code: string,
		message: string,
		readonly where?: string
	) {
		super(message);
	}
}
