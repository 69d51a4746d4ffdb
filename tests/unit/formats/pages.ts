const utf8 = (text: string) => new TextEncoder().encode(text);

/** A page of tables, each by its rows with bars between the cells; the first row is of headers. */
export const pageOf = (...tables: (readonly string[])[]): Uint8Array<ArrayBuffer> =>
	utf8(
		`<!doctype html><title>Page</title>${tables
			.map(
				(rows) =>
					`<table>${rows
						.map((row, r) => {
							const cell = r === 0 ? 'th' : 'td';
							return `<tr>${row
								.split('|')
								.map((text) => `<${cell}>${text}</${cell}>`)
								.join('')}</tr>`;
						})
						.join('')}</table>`
			)
			.join('<p>and</p>')}`
	);

/** The same rows as CSV. */
export const csvBytes = (rows: readonly string[]): Uint8Array<ArrayBuffer> =>
	utf8(rows.map((row) => row.replaceAll('|', ';')).join('\n') + '\n');
