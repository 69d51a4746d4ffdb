/** What another edition would do to a table that wears the style. */
interface Change {
	readonly cells: number;
	readonly edges: number;
	readonly pinned: boolean;
}
/** Whether the table would look different; a pinned one keeps what it has. */
export const isChanged = ({ cells, edges, pinned }: Change): boolean => !pinned && cells + edges > 0;
