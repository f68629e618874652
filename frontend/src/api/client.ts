import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

type Schemas = components['schemas'];
export type Plan = Schemas['Plan'];
export type Evaluation = Schemas['Sent'];
export type Brief = Schemas['Brief'];
export type Figure = Schemas['Figure'];
/** A figure as it stands on the sheet; its working comes when it is opened. */
export type Shown = Schemas['Shown'] & { key: string };
export type RevisionLine = Schemas['RevisionLine'];
export type PlanThen = Schemas['PlanThen'];
export type CardThen = Schemas['CardThen'];
export type Term = Schemas['Term'];
export type Snag = Schemas['Snag'];
export type Fix = Schemas['Fix'];
export type Slot = Schemas['Slot'];
export type Edit = Schemas['Edit'];
export type ForeseenLine = Schemas['ForeseenLine'];
export type Opened = Schemas['Opened'];
export type Stale = Schemas['Stale'];
export type ShootLine = Schemas['ShootLine'];
export type Traces = Schemas['Traces'];
export type Series = Schemas['Series'];
export type TimeMap = Schemas['TimeMap'];
export type BeatState = Schemas['BeatDrawn'];
export type RunView = Schemas['RunView'];
export type LogLine = Schemas['LogLine'];
export type Trouble = Schemas['Trouble'];
export type Quantity = Schemas['QuantityState'];
export type StartingPoint = Schemas['StartingPointLine'];
export type RigState = Schemas['RigDrawn'];
export type Changed = Schemas['ChangedCard'];
export type CardLine = Schemas['CardLine'];
export type KitCard = CardLine['card'];
export type Measuring = Schemas['Measuring'];
export type MeasureLine = Schemas['MeasureLine'];
export type SchoolState = Schemas['SchoolState'];
export type Change = NonNullable<Schemas['Ask']['changes']>[number];

export function token(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? '';
}

/** There was no answer at all. */
export class AwayError extends Error {
  constructor() {
    super('Bridle cannot be reached. Is it still running?');
  }
}

export const api = createClient<paths>({ baseUrl: '' });
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', token());
    return request;
  },
  onError() {
    return new AwayError();
  }
});

/** What went wrong, in a sentence, whether the server said it or could not be reached. */
export function sentence(error: unknown): string {
  if (error && typeof error === 'object') {
    const { message, detail } = error as { message?: unknown; detail?: unknown };
    if (error instanceof Error && !(error instanceof AwayError)) return `Something went wrong: ${message}`;
    if (typeof message === 'string') return message;
    if (typeof detail === 'string') return detail;
  }
  return 'Something went wrong that has no name yet. Nothing was changed.';
}

/** The answer; what was refused, or could not be done, is thrown as the server told it. */
export function got<T>(answer: { data?: T | undefined; error?: unknown }): T {
  if (answer.data === undefined) throw answer.error ?? new Error('no answer');
  return answer.data;
}

/** Send a plan file as it is; the server reads it and says what is wrong in it. */
export async function importPlan(body: Blob | string): Promise<Opened> {
  const headers = { 'X-CSRFToken': token(), 'Content-Type': 'application/json' };
  const response = await fetch('/api/shoots/import', { method: 'POST', body, headers }).catch(() => {
    throw new AwayError();
  });
  if (!response.ok)
    throw await response.json().catch(() => ({ message: `The file was refused (${response.status}).` }));
  return response.json();
}
