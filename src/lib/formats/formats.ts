import type { OpenDocument } from './document.ts';
import { css } from './css/format.ts';
import { csv } from './csv/format.ts';
import type { CsvDocument } from './csv/read.ts';
import { docx } from './docx/format.ts';
import type { DocxDocument } from './docx/read.ts';
import type { Format } from './format.ts';
import { html } from './html/format.ts';
import type { HtmlDocument } from './html/read.ts';
import { json } from './json/format.ts';
import type { JsonDocument } from './json/read.ts';
import type { OutKind } from './kinds.ts';
import { odt } from './odt/format.ts';
import type { OdtDocument } from './odt/read.ts';
import { pdf } from './pdf/format.ts';
import { svg } from './svg/format.ts';
import type { SvgDocument } from './svg/read.ts';

export type AnyDocument = DocxDocument | OdtDocument | HtmlDocument | CsvDocument | SvgDocument | JsonDocument;

/** The code of every kind. */
export const FORMATS = { svg, docx, odt, html, pdf, css, csv, json } satisfies Record<
	OutKind,
	unknown
> as unknown as Readonly<Record<OutKind, Format>>;

/** The format of a document. */
export const formatOf = ({ kind }: Pick<OpenDocument, 'kind'>): Format => FORMATS[kind as OutKind];
