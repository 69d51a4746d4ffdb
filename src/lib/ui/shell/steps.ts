/** A step as it is listed; who made it and when (ISO 8601), where that is known. */
export interface ListedStep {
	readonly label: string;
	readonly by?: string | null;
	readonly when?: string;
}
