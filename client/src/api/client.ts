import createClient from 'openapi-fetch';
import type { components, paths } from './schema';
import { t } from '../texts/texts';

type Schemas = components['schemas'];

/** What a query is asked with: its request ends when nobody waits for it any more. */
export interface Asked {
  signal: AbortSignal;
}

export type Picture = Schemas['PictureView'];
export type Destination = Schemas['DestinationView'];
export type Slot = Schemas['SlotView'];
export type Plan = Schemas['PlanView'];
export type Verdict = Schemas['Verdict'];
export type LikenessWord = NonNullable<Schemas['VariantFileView']['likenessWord']>;
export type ReasonCode = Schemas['ReasonCode'];
export type FileType = Schemas['FileType'];
export type SlotType = Schemas['SlotType'];
export type Reason = Schemas['Reason'];
export type VariantFile = Schemas['VariantFileView'];
export type Trial = Schemas['TrialView'];
export type TrialRequest = Schemas['TrialRequest'];
export type CurvePoint = Schemas['CurvePoint'];
export type Intake = Schemas['Intake'];
export type JobSummary = Schemas['JobSummary'];
export type CellDecision = Required<Schemas['CellDecision']>;
/** What the server sends is always whole. */
export type Decisions = Required<Omit<Schemas['Decisions'], 'cells' | 'turn' | 'focus'>> & {
  cells: Record<string, CellDecision>;
  turn: Turn;
  focus: Point | null;
};
export type JobPicture = Omit<Schemas['JobPictureView'], 'decisions' | 'content'> & {
  decisions: Decisions;
  content: Point | null;
};
export type JobTitle = Schemas['JobTitle'];
export type JobSlot = Schemas['JobSlotView'];
/** A job without its cells: what it says of itself, its pictures and slots. */
export type JobHead = Omit<Schemas['JobHead'], 'pictures'> & { pictures: JobPicture[] };
export type JobEvent = Schemas['JobEvent'];
export type JobCommand = Schemas['JobCommand'];
export type JobProgress = Schemas['JobProgress'];
export type RunState = Schemas['RunState'];
export type Cell = Schemas['CellView'];
export type CellFile = Schemas['CellFile'];
export type CellDetail = Schemas['CellDetail'];
export type Choice = Schemas['Choice'];
export type Edges = Schemas['Frame'];
export type Turn = Required<Schemas['Turn']>;
export type Point = Required<NonNullable<Schemas['FocusPoint']>>;
/** Left, top, right, bottom as fractions of the picture as displayed and turned. */
export type Frame = readonly [number, number, number, number];
export type HandOver = Schemas['HandOverView'];
export type HandOverFile = Schemas['HandOverFile'];
export type PublicationView = Schemas['PublicationView'];
export type PublishedPlace = Schemas['PublishedPlace'];
export type PageView = Schemas['PageView'];
export type ResponsiveView = Schemas['ResponsiveView'];
export type ResponsiveSlot = Schemas['ResponsiveSlot'];
export type ViewportLoad = Schemas['ViewportLoad'];
export type Visitors = Schemas['Visitors'];
export type SlotDraft = Schemas['SlotDraft'];
export type DraftCheck = Schemas['DraftCheck'];
export type Revision = Schemas['RevisionView'];
export type PreviewView = Schemas['PreviewView'];
export type InkView = Schemas['InkView'];
export type SideFile = Schemas['SideFileView'];
export type Dressing = Schemas['SavedStyle'];
export type PageCheck = Schemas['PageCheckView'];
export type PageReport = Schemas['PageReport'];
export type PageElement = Omit<Schemas['PageElement'], 'place'> & { place: Required<Schemas['PageBox']> };
export type PageScreen = Schemas['ReportedScreen'];
export type PageImage = Schemas['ReportedImage'];
export type PageOfJob = Schemas['PageRewriteView'];
export type RewrittenPage = Schemas['RewrittenPage'];
export type RewrittenScreen = Schemas['RewrittenScreen'];
export type RewrittenImage = Schemas['RewrittenImage'];
// A record whose members all have a value at first is described as if they could be missing.
type FolderFigures = Required<Schemas['PictureFolderFigures']>;
export type PictureFolder = Omit<Schemas['PictureFolderView'], 'figures'> & { figures: FolderFigures | null };
export type FolderList = { allowed: string[]; folders: PictureFolder[] };
export type FolderRule = Schemas['PictureFolderRule'];
/** Which file of a picture of a folder is meant. */
export type FolderFile = 'current' | 'original' | 'previewed';
export type FolderPicture = Schemas['PictureFolderPicture'];
export type ReceiverRule = Required<Schemas['ReceiverRule']>;
export type ReceiverWay = Schemas['ReceiverWay'];
export type ReceiverTrial = Schemas['ReceiverTrial'];
export type Receiver = Omit<Schemas['ReceiverView'], 'rule'> & { rule: ReceiverRule };
export type ShownFile = Omit<Required<Schemas['ShownFile']>, 'likenessWord'> & {
  likenessWord: LikenessWord | null;
};
export type ReceiverFile = Omit<Schemas['ReceiverFileView'], 'shown'> & { shown: ShownFile[] };
export type CellAnswer = Schemas['CellAnswer'];
export type ReceiverFileStanding = Schemas['ReceiverFileStanding'];
export type ReceiverDelivery = Omit<Schemas['ReceiverDeliveryView'], 'receiver' | 'files'> & {
  receiver: Receiver;
  files: ReceiverFile[];
};
type SurvivalTry = Omit<Schemas['SurvivalTry'], 'shown' | 'size'> & {
  shown: ShownFile | null;
  size: Required<Schemas['PixelSize']>;
};
export type Survival = Omit<Schemas['SurvivalView'], 'tried'> & { tried: SurvivalTry[] };
export type PageFaultCode = Schemas['PageFaultCode'];

export const api = createClient<paths>({ baseUrl: '' });

/** The event of this window when the server may no longer let this browser do what it could before. */
export const rightsChanged = 'pantomet:rights-changed';

/** What the server says is wrong, as a sentence. */
export class Refusal extends Error {}

/** The data of an answer, or its problem as a refusal. */
export async function take<T>(
  answer: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let result;
  try {
    result = await answer;
  } catch {
    throw new Refusal(t('common.pantometDoesNotAnswerCheckThat'));
  }
  if (result.response.ok) return result.data as T;
  if ([401, 403].includes(result.response.status)) window.dispatchEvent(new Event(rightsChanged));
  const problem = result.error as { detail?: string; title?: string } | undefined;
  throw new Refusal(problem?.detail ?? problem?.title ?? t('common.somethingWentWrong'));
}

/** Why an answer that was fetched by hand is a refusal, as a sentence. */
export async function reasonOf(answer: Response): Promise<string> {
  const problem = (await answer.json().catch(() => null)) as { detail?: string } | null;
  return problem?.detail ?? t('common.somethingWentWrong');
}

/** Where pictures and files are found. What changes its pixels changes its address. */
export const addresses = {
  preview: (id: string, shown: string, side: 480 | 1800) => {
    const [, turn] = shown.split('-');
    const rest = turn === undefined ? '' : `&turn=${shown.slice(shown.indexOf('-') + 1)}`;
    return `/api/pictures/${id}/preview/${side}?v=${shown}${rest}`;
  },
  original: (id: string) => `/api/pictures/${id}/original`,
  file: (id: string) => `/api/variants/${id}/file`,
  sideFile: ({ name, content }: SideFile) => `/api/side-files/${encodeURIComponent(name)}?v=${content}`,
  look: (id: string) => `/api/previews/${id}`,
  small: (id: string) => `/api/variants/${id}/small`,
  download: (id: string, name: string) => `/api/variants/${id}/file?name=${encodeURIComponent(name)}`,
  reference: (id: string) => `/api/variants/${id}/reference`,
  pageShot: (id: string, viewport: number, version: string) =>
    `/api/page-checks/${id}/pages/${viewport}?v=${version}`,
  pageFile: (id: string, path: string, version: string) =>
    `/api/page-checks/${id}/files/${path}?v=${version}`,
  mendedShot: (job: string, viewport: number, side: 'before' | 'after' | 'difference', version: string) =>
    `/api/jobs/${job}/page/pictures/${viewport}/${side}?v=${encodeURIComponent(version)}`,
  rewrittenPage: (job: string) => `/api/jobs/${job}/page/rewritten.zip`,
  shown: (job: string, receiver: string, path: string, at: number) =>
    `/api/jobs/${job}/deliveries/${receiver}/shown?path=${encodeURIComponent(path)}&at=${at}`,
  folder: (id: string) => `/api/folders/${id}/folder.zip`,
  folderPreview: (id: string, path: string, file: FolderFile, side: 480 | 1800, version: string) =>
    `/api/folders/${id}/preview/${side}?path=${encodeURIComponent(path)}&file=${file}&v=${version}`,
  bundle: (job: string) => `/api/jobs/${job}/bundle.zip`,
  contactSheet: (job: string, pictures: readonly string[] = []) =>
    `/api/jobs/${job}/contact-sheet.html${pictures.length > 0 ? `?${pictures.map((one) => `picture=${one}`).join('&')}` : ''}`,
  exported: (job: string) => `/api/jobs/${job}/export.zip`,
  report: (job: string, type: 'json' | 'csv') => `/api/jobs/${job}/report.${type}`,
};
