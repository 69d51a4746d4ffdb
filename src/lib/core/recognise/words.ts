/** Words that name a row or column's job, in the languages Heptarch knows: en de fr es it nl pt sv da pl. */
const TOTAL =
	'grand total|total(?:s|e|en|i|es)?|totaal|totalt|sum(?:me|ma|a)?|gesamt(?:summe)?|insgesamt|ensemble|suma|samlet|i alt|razem|ogółem|balance|saldo|solde|bilanz|overall|all';
const SUBTOTAL =
	'sub-? ?total(?:s|e|en)?|zwischensumme|sous-?total|subtotaal|delsumma|delsum|totale parziale|subtotale|suma częściowa|carried forward|übertrag';
const MEAN = 'mean|average|durchschnitt|mittelwert|moyenne|media|promedio|gemiddelde|média|medel|gennemsnit|średnia';
const NOTE =
	'notes?|sources?|remarks?|anmerkung(?:en)?|quellen?|hinweis|remarques?|notas?|fuentes?|fonti?|opmerking(?:en)?|bron(?:nen)?|fontes?|källa|kilde|źródło|uwagi|n\\.?b\\.?';

const starts = (words: string) => new RegExp(`^[\\s(*]*(?:${words})(?![\\p{L}])`, 'iu');
const ends = (words: string) => new RegExp(`(?<![\\p{L}])(?:${words})[\\s:)]*$`, 'iu');

export interface WordEvidence {
	readonly total: boolean;
	readonly subtotal: boolean;
	readonly mean: boolean;
	readonly note: boolean;
}

const BEGINS_SUBTOTAL = starts(SUBTOTAL);
const ENDS_SUBTOTAL = ends(SUBTOTAL);
const BEGINS_TOTAL = starts(TOTAL);
const ENDS_TOTAL = ends('total|totals|summe|totale');
const BEGINS_MEAN = starts(MEAN);
const BEGINS_NOTE = starts(NOTE);

/** What the label of a row says of its job. */
export function wordsIn(label: string): WordEvidence {
	const subtotal = BEGINS_SUBTOTAL.test(label) || ENDS_SUBTOTAL.test(label);
	return {
		subtotal,
		total: !subtotal && label.length < 60 && (BEGINS_TOTAL.test(label) || ENDS_TOTAL.test(label)),
		mean: BEGINS_MEAN.test(label),
		note: BEGINS_NOTE.test(label) || /^\s*(\*|†|‡|¹|\d\))\s*\S/.test(label)
	};
}

const within = (words: string) => new RegExp(`(?<![\\p{L}])(?:${words})(?![\\p{L}])`, 'iu');

export const MONEY_NAME = within(
	'cost|costs|price|prices|amount|budget|takings|income|revenue|spend|spent|fee|fees|value|variance|actual|donation|donations|paid|kosten|preis|betrag|umsatz|prix|coût|montant|recettes?|precio|coste|importe|prezzo|costo|importo|prijs|bedrag|preço|custo|pris|kostnad|beløb|cena|koszt|kwota|€|£|\\$'
);
export const CURRENCY_NAME = /[€£$¥]|(?<![\p{L}])(EUR|GBP|USD|CHF|SEK|DKK|NOK|PLN|CZK|JPY)(?![\p{L}])/u;
export const CODE_NAME = within(
	'code|codes|key|no|n°|nº|ref|reference|id|nr|sku|accession|rev|revision|circuit|bed|plot|kode|schlüssel|référence|clave|codice|código|kod|nummer|numéro'
);
export const YEAR_NAME = within('year|years|season|jahr|saison|année|año|anno|jaar|ano|år|rok|edition');
export const DATE_NAME = within(
	'date|day|month|datum|tag|monat|jour|mois|fecha|mes|data|giorno|mese|maand|dia|mês|dag|månad|måned|dzień|miesiąc'
);
export const TOTAL_NAME = BEGINS_TOTAL;
const UNIT =
	'(?:[kMGmcµ]?(?:m|g|l|L|W|Wh|V|A|J|Pa|Hz|s|t)|cm|mm|km|m²|m³|cm²|km²|ha|h|min|°C|°|K|lx|lm|mS|µS|pH|kWh|MWh|pcs|Stk\\.?)';
/** Nothing but a unit, as it stands in a row of its own below the names of columns. */
export const ONLY_UNIT = new RegExp(`^[([]?(?:${UNIT}|%|‰|€|£|\\$|[A-Z]{3})[)\\]]?$`, 'u');
/** The quarters, halves and weeks of a year, which look like codes. */
export const PERIOD = /^(?:[QTHKW]|KW|Q\.)\s?\d{1,2}$/;
/** A unit in a column's name: "Heat, MWh", "Length (m)". */
export const UNIT_NAME = new RegExp(`[,(]\\s*${UNIT}\\)?\\s*$`, 'u');
