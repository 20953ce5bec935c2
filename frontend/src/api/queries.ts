/** What several steps ask: jobs, the shelf, an option's year, target and shade. */
import { queryOptions } from '@tanstack/react-query';
import { answerOf, fileOf, OPTION, type OptionAt, pathOf, REVISION, revisionOf } from './asking';
import { api, foundOf, type Schemas, type TargetReport, unwrap, type YearReport } from './client';

export const jobsQuery = queryOptions({
  queryKey: ['jobs'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/jobs', { signal })).then((answer) => answer.jobs),
});

export const jobKey = (jobId: string) => ['job', jobId] as const;

export const jobQuery = (jobId: string) =>
  queryOptions({
    queryKey: jobKey(jobId),
    queryFn: ({ signal }) =>
      foundOf(
        api.GET('/api/jobs/{job_id}', { params: { path: { job_id: jobId }, query: {} }, signal }),
      ),
  });

export const shelfQuery = queryOptions({
  queryKey: ['shelf'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/shelf', { signal })),
  staleTime: Number.POSITIVE_INFINITY,
});

export const yearQuery = (at: OptionAt) =>
  answerOf<YearReport>(['year', at], (signal) =>
    foundOf(api.GET(`${OPTION}/year`, { params: pathOf(at), signal })),
  );

/** Why no plan strings all modules, and the nearest inverter on which one does. */
export const noPlanQuery = (at: OptionAt) =>
  answerOf<Schemas['NoPlan']>(['no-plan', at], (signal) =>
    foundOf(api.GET(`${OPTION}/no-plan`, { params: pathOf(at), signal })),
  );

export const targetQuery = (at: OptionAt) =>
  answerOf<TargetReport>(['target', at], (signal) =>
    foundOf(api.GET(`${OPTION}/target`, { params: pathOf(at), signal })),
  );

export const shadeQuery = (at: OptionAt) =>
  answerOf<Schemas['ShadeReport']>(['shade', at], (signal) =>
    foundOf(api.GET(`${OPTION}/shade`, { params: pathOf(at), signal })),
  );

export const weatherQuery = (at: OptionAt) =>
  answerOf<Schemas['WeatherReport']>(['weather', at.jobId, at.revision], (signal) =>
    foundOf(api.GET(`${REVISION}/weather`, { params: revisionOf(at), signal })),
  );

export const sheetAddress = (at: OptionAt) => fileOf(at, 'sheet.pdf');

export const briefAddress = (at: OptionAt) => fileOf(at, 'brief.pdf');

export const jobFileAddress = (jobId: string) => `/api/jobs/${jobId}/file`;

export const pictureAddress = (sha256: string) => `/api/pictures/${sha256}`;
