/** Where the server puts the number that lets a style sheet of a page in, once the page has one. */
export const NONCE = '%nonce%';

/** A page in which its own style sheets have its number, as its scripts have. */
export function withNonce(html: string): { readonly html: string; readonly nonce: string | undefined } {
	const nonce = /<script nonce="([^"]+)"/.exec(html)?.[1];
	return { html: nonce ? html.replaceAll(`<style nonce="${NONCE}"`, `<style nonce="${nonce}"`) : html, nonce };
}
