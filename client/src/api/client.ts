import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

type Schemas = components['schemas'];

export type Picture = Schemas['PictureView'];
export type Destination = Schemas['DestinationView'];
export type Slot = Schemas['SlotView'];
export type Framing = Schemas['FramingView'];
export type Plan = Schemas['PlanView'];
export type Verdict = Schemas['Verdict'];
export type LikenessWord = NonNullable<Schemas['VariantFileView']['likenessWord']>;
export type Reason = Schemas['Reason'];
export type Variant = Schemas['VariantView'];
export type VariantFile = Schemas['VariantFileView'];
export type VariantWish = Schemas['VariantWish'];
export type Intake = Schemas['Intake'];

/** Left, top, right, bottom as fractions of the picture as displayed. */
export type Frame = readonly [number, number, number, number];

export const api = createClient<paths>({ baseUrl: '' });

/** What the server says is wrong, as a sentence. */
export class Refusal extends Error {}

/** The data of an answer, or its problem as a refusal. */
export async function take<T>(answer: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  let result;
  try {
    result = await answer;
  } catch {
    throw new Refusal('Pantomet does not answer. Is it still running?');
  }
  if (result.data !== undefined) return result.data;
  const problem = result.error as { detail?: string; title?: string } | undefined;
  throw new Refusal(problem?.detail ?? problem?.title ?? 'Something went wrong.');
}

export const addresses = {
  preview: (id: string, side: 480 | 1800) => `/api/pictures/${id}/preview/${side}`,
  original: (id: string) => `/api/pictures/${id}/original`,
  file: (id: string) => `/api/variants/${id}/file`,
  download: (id: string) => `/api/variants/${id}/file?download=true`,
  reference: (id: string) => `/api/variants/${id}/reference`,
};
