import { plural } from '../../words.ts';
import { isHeader } from '../../roles/index.ts';
import { filledCells, type FilledCell } from './cells.ts';
import { weigh, type Clues, type Verdict } from './purpose.ts';

const within = (words: string) => new RegExp(`(?<![\\p{L}])(?:${words})(?![\\p{L}])`, 'iu');
/** Where somebody signs, stamps or puts a photograph; en de fr es it nl pt sv da nb pl cs hu ro fi tr ru uk el he ar zh ja ko. */
const SIGNATURE = new RegExp(
	`${within('signature|signed(?: by)?|sign here|sign|initials|stamp|photo(?:graph)? here|passport photo|unterschrift|gezeichnet|stempel|lichtbild|passbild|signé|cachet|tampon|visa|firma|firmato|sello|timbro|handtekening|ondertekening|assinatura|carimbo|underskrift|namnteckning|namnunderskrift|podpis|pieczęć|pieczątka|razítko|aláírás|bélyegző|semnătura|ștampila|allekirjoitus|leima|imza|mühür|kaşe|подпись|печать|підпис|печатка|υπογραφή|σφραγίδα|חתימה|חותמת').source}|توقيع|الختم|签名|签字|簽名|签章|盖章|署名|押印|서명|날인`,
	'iu'
);
/** What forms ask people for. */
const ASKED = within(
	"name|first name|last name|surname|given names?|full name|address|street|postcode|zip|phone|telephone|tel\\.?|mobile|e-?mail|date of birth|place of birth|nationality|applicant|occupation|employer|date|vorname|nachname|anschrift|adresse|straße|plz|telefon|geburtsdatum|geburtsort|antragsteller(?:in)?|datum|nom|prénom|téléphone|courriel|date de naissance|nombre|apellidos?|dirección|teléfono|fecha|nome|cognome|indirizzo|telefono|naam|voornaam|adres|telefoon|namn|förnamn|navn|fornavn|imię|nazwisko|jméno|příjmení|név|lakcím|nimi|osoite|ad[ıi]|soyad[ıi]|имя|фамилия|адрес|телефон|ім[’']я|прізвище|адреса"
);

/** Tables of forms are no longer. */
const MOST_ROWS = 400;

/** The cells of a row that lead to a place to write on: a blank beside them, or room in themselves. */
function leading(row: readonly FilledCell[]): { labels: number; leads: number; asks: number; asked: number } {
	let [labels, leads, asks, asked] = [0, 0, 0, 0];
	row.forEach((cell, i) => {
		if (!cell.isLabel) return;
		labels++;
		const next = row[i + 1];
		const isLed = cell.hasLine || cell.hasBox || !!next?.isEmpty || !!next?.hasLine || !!next?.hasBox;
		// A label with a colon whose cell ends the row, or has another such label after it, is written on itself.
		const isOpen = cell.asks && (!next || (next.isLabel && next.asks));
		if (!isLed && !isOpen) return;
		leads++;
		if (cell.asks) asks++;
		if (ASKED.test(cell.text) || SIGNATURE.test(cell.text)) asked++;
	});
	return { labels, leads, asks, asked };
}

/** Labels that lead to blanks, or boxes, and a place for a signature. Empty cells alone prove nothing. */
export function form(clues: Clues): Verdict {
	const { grid, facts, asData } = clues;
	if (grid.rows > MOST_ROWS || grid.cells.length < 2) return weigh([]);
	const rows = filledCells(clues);
	const cells = rows.flat();
	const filled = cells.filter(({ isEmpty }) => !isEmpty);
	const boxes = cells.filter(({ hasBox }) => hasBox).length;
	const lines = cells.filter(({ hasLine }) => hasLine).length;
	const figures = filled.filter(({ isFigure }) => isFigure).length / Math.max(1, filled.length);

	// A row across the whole width is a heading of a part, or a place to write on at length.
	const speaking = rows.filter((row) => row.some(({ isEmpty }) => !isEmpty) && !(row.length === 1 && grid.columns > 1));
	const led = speaking.map(leading);
	const asking = led.filter(({ labels, leads, asks }) => leads > 0 && (leads === labels || asks > 0));
	const sum = (of: (one: (typeof led)[number]) => number) => led.reduce((all, one) => all + of(one), 0);
	const [colons, asked] = [sum(({ asks }) => asks), sum(({ asked }) => asked)];
	const share = asking.length / Math.max(1, speaking.length);
	const first = led[0];
	const hasNames = !!first && first.leads === 0 && first.labels >= 2 && first.labels === grid.columns;
	const leads = sum(({ leads }) => leads);
	const isLed = asking.length >= 2 && share >= 0.4 && !hasNames;

	const headers = asData.rows.flatMap(({ is }, r) => (isHeader(is) ? [r] : []));
	const places = cells.filter(({ text }) => text.length <= 60 && SIGNATURE.test(text));
	const signs = places.some((cell) => {
		if (headers.includes(cell.r) && cell.r < 3 && !cell.asks && !cell.hasLine) return false;
		const next = rows[cell.r]!.find(({ c }) => c === cell.c + cell.cols);
		const below = rows[cell.r + cell.rows]?.find(({ c }) => c === cell.c);
		return cell.asks || cell.hasLine || !!next?.isEmpty || !!next?.hasLine || !!below?.isEmpty || !below;
	});
	/** A column for signatures that nobody has signed yet. */
	const hasSheet = places.some(
		({ r, c }) => headers.includes(r) && facts.slice(r + 1).every(({ texts }) => !texts[c]?.trim())
	);
	const answered = rows.filter(([label, value]) => label?.asks && value && !value.isEmpty).length;
	const tall = cells.filter((cell) => cell.cols > 1 || cell.rows > 1);
	const isUneven = new Set(rows.map((row) => row.map(({ c, cols }) => `${c}+${cols}`).join())).size > 2;
	const numeric = asData.columns.some(
		({ is, confidence }) => is === 'money' || (is === 'quantity' && confidence > 0.8)
	);
	const isPrepared = boxes >= 2 || lines >= 2;
	return weigh([
		boxes >= 2 && [0.65, `${boxes} cells have a box to tick`],
		boxes === 1 && [0.3, 'a cell has a box to tick'],
		lines >= 2 && [0.65, `${lines} cells have a line or field to write on`],
		lines === 1 && [0.3, 'a cell has a line or field to write on'],
		isLed && [0.35 + 0.15 * share, `${plural(leads, 'label leads', 'labels lead')} to a place to write on`],
		colons >= 2 && [0.2, `${colons} of them end with a colon`],
		asked >= 2 && [0.25, `${asked} of them ask for what forms ask for`],
		signs && [0.3, 'there is a place for a signature, stamp or photograph'],
		signs && answered >= 2 && [0.25, `${answered} answers stand beside what is asked`],
		hasSheet && [0.55, 'a column waits for signatures'],
		isUneven && tall.length >= 3 && (isLed || boxes + lines > 0) && [0.15, 'cells are joined all over'],
		// Boxes and lines are for filling in, whatever stands beside them; anything else can be chance among figures.
		!isPrepared && (figures > 0.3 ? [-0.4, ''] : figures > 0.15 && [-0.15, '']),
		!isPrepared && headers.length > 0 && numeric && [-0.3, '']
	]);
}
