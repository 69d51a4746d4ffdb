/**
 * Words that name a row or column's job, in the languages Heptarch knows: en de fr es it nl pt sv da nb pl cs hu ro fi
 * tr ru uk el he ar zh ja ko.
 */
const TOTAL =
	'grand total|total(?:s|e|en|i|es|t|ul)?|totaal|totalt|sum(?:me|ma|a)?|gesamt(?:summe|betrag)?|rechnungsbetrag|insgesamt|ensemble|suma|samlet|i alt|totalsumma|razem|ogółem|balance|saldo|solde|bilanz|overall|all|in all|(?:amount )?to pay|amount due|à payer|a pagar|da pagare|te betalen|att betala|celkem|úhrnem|összesen|mindösszesen|végösszeg|yhteensä|summa|toplam|genel toplam|итого|всего|усього|разом|всього|σύνολο|γενικό σύνολο|סה["״]כ|סך הכול|المجموع|الإجمالي|الاجمالي';
const SUBTOTAL =
	'sub-? ?total(?:s|e|en|t|ul)?|zwischensumme|sous-?total|subtotaal|delsumma|delsum|totale parziale|subtotale|suma częściowa|mezisoučet|részösszeg|välisumma|ara toplam|промежуточный итог|подытог|проміжний підсумок|μερικό σύνολο|סיכום ביניים|المجموع الفرعي|carried forward|übertrag|net total|nettobetrag|montant net';
/** Without spaces between words, they are found at the beginning of a label, whatever follows. */
const TOTAL_UNSPACED = /^[\s(*]*(?:合计|总计|總計|合計|总额|總額|合計|総計|총계|합계)/u;
const SUBTOTAL_UNSPACED = /^[\s(*]*(?:小计|小計|소계)/u;
const MEAN =
	'mean|average|avg|ø|mittel|durchschnitt|mittelwert|moyenne|media|promedio|gemiddelde|média|medel|medelvärde|gennemsnit|gjennomsnitt|średnia|średnio|průměr|átlag|keskiarvo|ortalama|среднее|середнє|μέσος όρος|ממוצע|المتوسط|平均|평균';
const NOTE =
	'notes?|sources?|remarks?|anmerkung(?:en)?|quellen?|hinweis|remarques?|notas?|fuentes?|fonti?|opmerking(?:en)?|bron(?:nen)?|fontes?|källa|kilde|źródło|uwagi|zdroj|poznámka|forrás|megjegyzés|sursa|lähde|huomautus|kaynak|источник|примечание|джерело|примітка|πηγή|σημείωση|מקור|הערה|المصدر|ملاحظة|出典|注|资料来源|來源|来源|출처|n\\.?b\\.?';

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
const ENDS_TOTAL = ends('total|totals|summe|totale|toplamı|toplam|összesen|yhteensä|celkem');
/** German, Dutch and Swedish join their words: Nettosumme. */
const ENDS_IN_SUM = /\p{L}(?:summe|summa|totaal)[\s:)]*$/iu;
const BEGINS_MEAN = starts(MEAN);
const BEGINS_NOTE = starts(NOTE);

/** What the label of a row says of its job. */
export function wordsIn(label: string): WordEvidence {
	const subtotal = BEGINS_SUBTOTAL.test(label) || ENDS_SUBTOTAL.test(label) || SUBTOTAL_UNSPACED.test(label);
	const total =
		BEGINS_TOTAL.test(label) || ENDS_TOTAL.test(label) || ENDS_IN_SUM.test(label) || TOTAL_UNSPACED.test(label);
	return {
		subtotal,
		total: !subtotal && label.length < 60 && total,
		mean: BEGINS_MEAN.test(label),
		note: BEGINS_NOTE.test(label) || /^\s*(\*|†|‡|[¹²³⁴-⁹]|\d\))\s*\S/.test(label)
	};
}

const within = (words: string) => new RegExp(`(?<![\\p{L}])(?:${words})(?![\\p{L}])`, 'iu');

/** What is money even where it is written in whole numbers. */
const MONEY =
	'costs?|prices?|fees?|budget|income|revenue|expenses|expenditure|salary|salaries|rent|takings|kosten|preis|betrag|einnahmen|ausgaben|umsatz|prix|coût|montant|recettes?|dépenses|precio|coste|importe|ingresos|gastos|prezzo|costo|importo|ricavi|spese|prijs|bedrag|opbrengst|preço|custo|receita|despesa|kostnad|intäkter|beløb|utgifter|cena|koszt|kwota|przychody|wydatki|náklady|příjmy|ár|költség|bevétel|hinta|kustannus|tulot|gelir|gider|fiyat|tutar|цена|стоимость|сумма|доход|расход|ціна|вартість|τιμή|κόστος|έσοδα|מחיר|עלות|السعر|التكلفة|金额|金額|价格|単価|売上|가격|금액';
export const MONEY_NAME = within(
	`${MONEY}|amount|spend|spent|value|variance|actual|donations?|paid|pris|opening|closing|net|gross|vat|tax|profit|loss|surplus|deficit|debit|credit|€|£|\\$`
);
export const PLAIN_MONEY_NAME = within(MONEY);
/** A sign or code of a currency by itself, in a name or label. */
export const CURRENCY_NAME =
	/\p{Sc}|(?<![\p{L}])(EUR|GBP|USD|CHF|SEK|DKK|NOK|PLN|CZK|HUF|RON|TRY|RUB|UAH|ILS|CNY|JPY|KRW|zł|Kč|Ft|kr\.?)(?![\p{L}])|[(（][元円원][)）]/u;
/** A share of the whole; its figures are percentages without a sign where they make a hundred. */
export const SHARE_NAME = within(
	'shares?|anteil(?:e)?|parts?|cuota|quota|aandeel|quota|parte|andel|udział|podíl|arány|osuus|доля|частка|μερίδιο|占比|割合|構成比|비율'
);
export const PERCENT_NAME = within(
	'%|per ?cent|percentages?|pct|prozent|pourcentage|porcentaje|percentuale|procent|percentagem|prosent|procenty|procento|százalék|prosentti|yüzde|oran|процент|відсоток|ποσοστό|אחוז|النسبة|百分比'
);
export const CODE_NAME = within(
	'code|codes|key|no|n°|nº|ref|reference|id|nr|sku|accession|rev|revision|circuit|bed|plot|kode|schlüssel|référence|clave|codice|código|kod|nummer|numéro'
);
/** Nothing but “number”, which is of something, or how many. */
export const NUMBER_NAME = /^(?:number|nummer|numéro|número|numero|numer|číslo|szám|номер|αριθμός)$/iu;
export const YEAR_NAME = within('year|years|season|jahr|saison|année|año|anno|jaar|ano|år|rok|edition');
export const DATE_NAME = within(
	'date|day|month|datum|tag|monat|jour|mois|fecha|mes|data|giorno|mese|maand|dia|mês|dag|månad|måned|dzień|miesiąc'
);
export const TOTAL_NAME = BEGINS_TOTAL;
const ONE_UNIT =
	'(?:[kMGmcµnhd]?(?:m|g|l|L|W|Wh|V|A|J|Pa|Hz|s|t|N|mol|bar|B)[²³]?|ha|h|min|°C|°F|°|K|lx|lm|cd|dB|Bq|S|mS|µS|pH|kp|rpm|ppm|VA|kVA|pcs|Stk\\.?|шт\\.?|м[²³]?|см|мм|км|кг|г|т|л|кВт(?:·ч)?)';
const UNIT = `${ONE_UNIT}(?:[/·]${ONE_UNIT})?`;
/** Nothing but a unit, as it stands in a row of its own below the names of columns. */
export const ONLY_UNIT = new RegExp(`^[([]?(?:${UNIT}|%|‰|€|£|\\$|[A-Z]{3})[)\\]]?$`, 'u');
/** The quarters, halves, weeks and (in Roman numerals) months of a year, which look like codes. */
export const PERIOD = /^(?:(?:[QTHKW]|KW|Q\.)\s?\d{1,2}|I{1,3}|I[VX]|VI{0,3}|XI{0,2})$/;
/** A unit in a column's name: "Heat, MWh", "Length (m)". */
export const UNIT_NAME = new RegExp(`[,(]\\s*${UNIT}\\)?\\s*$`, 'u');
