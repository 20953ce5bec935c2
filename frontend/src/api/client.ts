/** The one client of the API, typed by the generated schema. */
import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type JobState = Schemas['JobState'];
/** A job whose brief and survey could be worked out: what every step is shown. */
export type WorkedOut = JobState & { brief: BriefReport; survey: SurveyReport };
export type Job = Schemas['Job'];
export type Option = Schemas['Option'];
export type RoofPlane = Schemas['RoofPlane'];
export type OptionReport = Schemas['OptionReport'];
export type CheckView = Schemas['CheckView'];
export type BriefReport = Schemas['BriefReport'];
export type SurveyReport = Schemas['SurveyReport'];
export type TargetReport = Schemas['TargetReport'];
export type YearReport = Schemas['YearReport'];
export type Edit = Schemas['EditRequest']['edit'];

/** An answer around what was asked for. */
export interface Found<T> {
  found: T;
}
/** A study as far as it is worked out, whether it goes on, and why it ended without finding. */
export interface Running<T> {
  found: T | null;
  running: boolean;
  problem: string;
}

export const api = createClient<paths>({ baseUrl: '/' });

/** An answer that was an error: the sentence is for people, the code for programs. */
export class ProblemError extends Error {
  readonly code: string;
  readonly field: string;
  readonly keptJobId: string;
  constructor(problem: Schemas['Problem']) {
    super(problem.message);
    this.code = problem.code;
    this.field = problem.field ?? '';
    this.keptJobId = problem.kept_job_id ?? '';
  }
}

const UNREACHABLE: Schemas['Problem'] = {
  code: 'network',
  message:
    'Ridge Tally does not answer. Everything saved is safe; start the program again and this page goes on.',
  field: '',
  kept_job_id: '',
};

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer, or a ProblemError. */
export async function unwrap<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ProblemError(UNREACHABLE);
  }
  if (answer.error !== undefined || answer.data === undefined) {
    const problem = answer.error as Partial<Schemas['Problem']> | undefined;
    throw new ProblemError({
      code: problem?.code ?? `http.${answer.response.status}`,
      message: problem?.message ?? `The program answered ${answer.response.status}.`,
      field: problem?.field ?? '',
      kept_job_id: problem?.kept_job_id ?? '',
    });
  }
  return answer.data;
}

/** What was asked for, or a ProblemError. */
export async function foundOf<T>(asked: Promise<Answer<Found<T>>>): Promise<T> {
  return (await unwrap(asked)).found;
}

/** What was made of a file sent as the body, its name beside it; rejects with a ProblemError. */
export async function sendFile<T>(address: string, file: File): Promise<T> {
  const answer = await fetch(address, {
    method: 'POST',
    headers: {
      'Content-Type': 'application/octet-stream',
      'X-File-Name': encodeURIComponent(file.name),
    },
    body: file,
  });
  const body: unknown = await answer.json();
  if (!answer.ok) throw new ProblemError(body as Schemas['Problem']);
  return (body as Found<T>).found;
}
