import { aboutKind, type DocumentKind } from '$lib/formats/kinds.ts';

/** Where a document is worked on. */
export const addressOf = ({ id, kind }: { readonly id: string; readonly kind: string }): string =>
	aboutKind(kind as DocumentKind)?.isDrawing ? `/documents/${id}/sheet` : `/documents/${id}`;
