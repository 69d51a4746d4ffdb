import type { namedAmong } from '../census/among.ts';
import type { judgeDocument, mendTables } from '../census/judged.ts';
import type { addDocument } from '../documents/add.ts';
import type { documentsFound } from '../documents/list.ts';
import type { previewNewer, putNewer } from '../documents/newer.ts';
import type { addStep, moveToStep } from '../documents/steps.ts';
import type { writeDocument } from '../documents/writing.ts';
import type { drawingObjects, drawTables, replaceDrawing, reuseSchedule, shownDrawing } from '../drawings/drawings.ts';
import type { HouseRecord } from '../house/house.ts';
import type { impactPicture, rollOut, undoRollOut } from '../runs/rollouts.ts';
import type { previewRun } from '../runs/preview.ts';
import type { listRuns, startReread, startRun, undoRun } from '../runs/runs.ts';
import type { listEditions, promote, restoreEdition } from '../styles/editions.ts';
import type { answerProposal } from '../styles/proposals.ts';
import type { liftStyle, previewLift } from '../styles/lifting.ts';
import type { listSpecimens } from '../styles/specimens.ts';
import type { loadStyleSteps, pushUpLeaf, saveStyle } from '../styles/steps.ts';
import type { StyleRecord } from '../styles/styles.ts';
import type { takeStylesIn } from '../styles/arriving.ts';
import type { keepStarter, listStarters, makeTable, takeOut } from '../tables/tables.ts';
import type { addWorkStep, LoadedWork, workSince } from '../tables/work.ts';
import type { restore } from '../backup/restore.ts';
import type { makeToken } from '../programs/tokens.ts';
import type { addWebhook } from '../programs/webhooks.ts';
import type { SecondFactor } from '../people/second-factor.ts';
import type { readSheets } from '../../formats/sheets/sheets.ts';
import type { TableState } from '../../workbench/state.ts';
import type { Requests } from './requests.ts';

/** What a function of the server comes to. */
type From<F extends (...args: never[]) => unknown> = Awaited<ReturnType<F>>;
/** A request with nothing in it, and an answer with nothing in it. */
type Nothing = undefined | void;

/** A table's work, and what the table wears now. */
export type WorkAnswer = Pick<LoadedWork, 'base' | 'from' | 'steps' | 'at' | 'by'> & { readonly wears: TableState };

/**
 * What each route that answers in JSON takes as its body and gives: `*` stands for an id or number in the path. Both sides
 * are held to it: `answer` in the routes, `call` in the browser; what is taken is looked through by the schema of the same
 * name in `requests.ts`. A file that is sent is a `Blob`.
 */
export interface Contract {
	'GET /api/documents': { takes: Nothing; gives: From<typeof documentsFound> };
	'POST /api/documents': { takes: Blob; gives: From<typeof addDocument> };
	'PUT /api/documents/*': { takes: Requests['keepDocument']; gives: Nothing };
	'DELETE /api/documents/*': { takes: Nothing; gives: Nothing };
	'POST /api/documents/*/steps': { takes: Requests['newStep']; gives: From<typeof addStep> };
	'GET /api/documents/*/step': { takes: Nothing; gives: { version: number; block: number } };
	'PUT /api/documents/*/step': { takes: Requests['moveStep']; gives: From<typeof moveToStep> };
	'POST /api/documents/*/newer': { takes: Blob; gives: From<typeof previewNewer> };
	'PUT /api/documents/*/newer': { takes: Blob; gives: From<typeof putNewer> };
	'GET /api/documents/*/policy': { takes: Nothing; gives: From<typeof judgeDocument> };
	'POST /api/documents/*/policy': { takes: Requests['mendTables']; gives: From<typeof mendTables> };
	'GET /api/census/tables': { takes: Nothing; gives: From<typeof namedAmong> };
	'GET /api/documents/*/alike': { takes: Nothing; gives: number[] };
	'GET /api/documents/*/account': { takes: Nothing; gives: From<typeof writeDocument>['account'] };
	'GET /api/documents/*/lift': { takes: Nothing; gives: From<typeof previewLift> };
	'POST /api/documents/*/lift': { takes: Requests['lift']; gives: From<typeof liftStyle> };
	'DELETE /api/documents/*/tables/*': { takes: Requests['takeOut']; gives: From<typeof takeOut> };
	'GET /api/documents/*/tables/*/work': { takes: Nothing; gives: WorkAnswer };
	'GET /api/documents/*/tables/*/work/since': { takes: Nothing; gives: From<typeof workSince> };
	'POST /api/documents/*/tables/*/work': { takes: Requests['newWork']; gives: From<typeof addWorkStep> };
	'PUT /api/documents/*/tables/*/work': { takes: Requests['moveWork']; gives: Nothing };
	'POST /api/drawings/reuse': { takes: Requests['reuseSchedule']; gives: From<typeof reuseSchedule> };
	'POST /api/drawings/reread': { takes: Requests['startReread']; gives: From<typeof startReread> };
	'PUT /api/drawings/*/file': { takes: Blob; gives: From<typeof replaceDrawing> };
	'POST /api/drawings/*/draw': { takes: Requests['drawTables']; gives: From<typeof drawTables> };
	'GET /api/drawings/*/objects': { takes: Nothing; gives: From<typeof drawingObjects> };
	'GET /api/drawings/*/shown': { takes: Nothing; gives: From<typeof shownDrawing> };
	'POST /api/rows': { takes: Blob; gives: From<typeof readSheets> };
	'POST /api/tables': { takes: Requests['newTable']; gives: From<typeof makeTable> };
	'GET /api/starters': { takes: Nothing; gives: From<typeof listStarters> };
	'POST /api/starters': { takes: Requests['newStarter']; gives: From<typeof keepStarter> };
	'PUT /api/starters/*': { takes: Requests['changeStarter']; gives: Nothing };
	'DELETE /api/starters/*': { takes: Nothing; gives: Nothing };
	'GET /api/styles': { takes: Nothing; gives: StyleRecord[] };
	'POST /api/styles': { takes: Requests['newStyle']; gives: { id: string } };
	'GET /api/styles/*': { takes: Nothing; gives: StyleRecord };
	'PUT /api/styles/*': { takes: Requests['saveStyle']; gives: From<typeof saveStyle> };
	'PUT /api/styles/*/aside': { takes: Requests['keepStyle']; gives: Nothing };
	'PUT /api/styles/*/use': { takes: Requests['useStyle']; gives: Nothing };
	'DELETE /api/styles/*': { takes: Requests['removeStyle']; gives: Nothing };
	'GET /api/styles/*/steps': { takes: Nothing; gives: From<typeof loadStyleSteps> };
	'GET /api/styles/*/editions': { takes: Nothing; gives: From<typeof listEditions> };
	'POST /api/styles/*/editions': { takes: Requests['publish']; gives: { number: number } };
	'POST /api/styles/*/editions/*/restore': { takes: Nothing; gives: From<typeof restoreEdition> };
	'POST /api/styles/*/proposals': { takes: Requests['publish']; gives: { id: string } };
	'PUT /api/styles/*/proposals/*': { takes: Requests['answerProposal']; gives: From<typeof answerProposal> };
	'GET /api/styles/*/impact': { takes: Nothing; gives: From<typeof impactPicture> };
	'PUT /api/styles/*/specimens': { takes: Requests['chooseSpecimens']; gives: Nothing };
	'POST /api/styles/*/promote': { takes: Requests['promote']; gives: From<typeof promote> };
	'POST /api/styles/*/push-up': { takes: Requests['pushUp']; gives: From<typeof pushUpLeaf> };
	'POST /api/styles/*/rollouts': { takes: Requests['rollOut']; gives: From<typeof rollOut> };
	'DELETE /api/rollouts/*': { takes: Nothing; gives: From<typeof undoRollOut> };
	'GET /api/specimens': { takes: Nothing; gives: From<typeof listSpecimens> };
	'POST /api/template': { takes: Blob; gives: From<typeof takeStylesIn> };
	'GET /api/house': { takes: Nothing; gives: HouseRecord };
	'PUT /api/house': { takes: Requests['changeHouse']; gives: HouseRecord };
	'PUT /api/house/step': { takes: Requests['moveHouse']; gives: HouseRecord };
	'GET /api/runs': { takes: Nothing; gives: From<typeof listRuns> };
	'POST /api/runs/preview': { takes: Requests['startRun']; gives: From<typeof previewRun> };
	'POST /api/runs': { takes: Requests['startRun']; gives: From<typeof startRun> };
	'POST /api/session': { takes: Requests['signIn']; gives: { needsCode: boolean } };
	'POST /api/session/provider': { takes: Requests['goTo']; gives: { url: string } };
	'POST /api/me/provider': { takes: Nothing; gives: { url: string } };
	'POST /api/session/second': { takes: Requests['sayCode']; gives: Nothing };
	'POST /api/me/second': { takes: Requests['showPassword']; gives: SecondFactor };
	'PUT /api/me/second': { takes: Requests['sayCode']; gives: Nothing };
	'DELETE /api/me/second': { takes: Requests['showPassword']; gives: Nothing };
	'DELETE /api/house/people/*/second': { takes: Nothing; gives: Nothing };
	'PUT /api/session': { takes: Requests['workIn']; gives: Nothing };
	'DELETE /api/session': { takes: Nothing; gives: Nothing };
	'POST /api/enter/*': { takes: Requests['enter']; gives: Nothing };
	'PUT /api/me': { takes: Requests['renameMe']; gives: Nothing };
	'PUT /api/me/password': { takes: Requests['setPassword']; gives: Nothing };
	'DELETE /api/me/sessions/*': { takes: Nothing; gives: Nothing };
	'POST /api/house/invitations': { takes: Requests['invite']; gives: { link: string } };
	'DELETE /api/house/invitations/*': { takes: Nothing; gives: Nothing };
	'PUT /api/house/name': { takes: Requests['nameHouse']; gives: Nothing };
	'POST /api/house/programs': { takes: Requests['newToken']; gives: From<typeof makeToken> };
	'DELETE /api/house/programs/*': { takes: Nothing; gives: Nothing };
	'POST /api/v1/webhooks': { takes: Requests['newWebhook']; gives: From<typeof addWebhook> };
	'DELETE /api/v1/webhooks/*': { takes: Nothing; gives: Nothing };
	'POST /api/house/backup': { takes: Blob; gives: From<typeof restore> };
	'GET /api/house/keeping': { takes: Nothing; gives: { readonly steps: number } };
	'PUT /api/house/keeping': { takes: Requests['keeping']; gives: Nothing };
	'PUT /api/house/eyes': { takes: Requests['secondEyes']; gives: Nothing };
	'PUT /api/house/people/*': { takes: Requests['setRole']; gives: Nothing };
	'DELETE /api/house/people/*': { takes: Nothing; gives: Nothing };
	'POST /api/house/people/*/link': { takes: Nothing; gives: { link: string } };
	'POST /api/houses': { takes: Requests['nameHouse']; gives: { id: string } };
	'PUT /api/runs/*': { takes: Requests['changeRun']; gives: Nothing | From<typeof undoRun> };
}

export type RouteName = keyof Contract;
export type Takes<R extends RouteName> = Contract[R]['takes'];
export type Gives<R extends RouteName> = Contract[R]['gives'];

type Segment<S extends string> = string extends S ? '*' : S extends `${infer _ extends number}` ? '*' : S;
type Bare<P extends string> = P extends `${infer A}?${string}` ? A : P;
type Pattern<P extends string> = P extends `${infer H}/${infer T}` ? `${Segment<H>}/${Pattern<T>}` : Segment<P>;

/** The route that a method and a path, with whatever is put into it, lead to; never where there is none. */
export type RouteOf<M extends string, P extends string> = Extract<`${M} ${Pattern<Bare<P>>}`, RouteName>;
