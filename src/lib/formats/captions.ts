const CAPTION = /^(table|tabelle|tab\.|tableau|tabla|tabella|tabel|tabell|tabela)\s*\d/i;

/** Whether a paragraph reads like the caption of a table. */
export const isTableCaption = (text: string): boolean => CAPTION.test(text);
