/** Text as character data or attribute value of HTML, in double quotes. */
export const escapeHtml = (text: string): string =>
	text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

// eslint-disable-next-line no-control-regex
const NOT_XML = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g;

/** The same for XML 1.0; characters that it cannot hold are left out (XML 1.0, production 2). */
export const escapeXml = (text: string): string => escapeHtml(text.replace(NOT_XML, ''));
