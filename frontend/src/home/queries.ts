/** What the list of jobs asks and does. */
import { queryOptions } from '@tanstack/react-query';
import { api, type Found, foundOf, type Schemas, unwrap } from '@/api/client';

export type JobEntry = Schemas['JobListEntry'];
export type JobCard = Schemas['JobCard'];
export type Sample = Schemas['Sample'];

export const cardKey = (job: JobEntry) => ['card', job.id, job.revision] as const;

export const cardQuery = (job: JobEntry) =>
  queryOptions({
    queryKey: cardKey(job),
    queryFn: ({ signal }) =>
      foundOf(api.GET('/api/jobs/{job_id}/card', { params: { path: { job_id: job.id } }, signal })),
  });

const at = (jobId: string) => ({ params: { path: { job_id: jobId } } });

export const duplicate = (jobId: string) =>
  unwrap(api.POST('/api/jobs/{job_id}/duplicate', at(jobId)));

export const remove = (jobId: string) => unwrap(api.DELETE('/api/jobs/{job_id}', at(jobId)));

export const restore = (jobId: string) => unwrap(api.POST('/api/jobs/{job_id}/restore', at(jobId)));

export const archive = (jobId: string, archived: boolean) =>
  unwrap(api.POST('/api/jobs/{job_id}/archive', { ...at(jobId), body: { archived } }));

export const create = (body: Schemas['NewJob']) => foundOf(api.POST('/api/jobs', { body }));

export const beginWith = (sample: Sample) =>
  foundOf(api.POST('/api/jobs/samples/{sample}', { params: { path: { sample } } }));

export async function bring(chosen: File) {
  const asked = fetch('/api/jobs/import', {
    method: 'POST',
    body: await chosen.arrayBuffer(),
    headers: { 'X-File-Name': encodeURIComponent(chosen.name) },
  }).then(async (response) => {
    const body = (await response.json()) as Found<Schemas['JobState']>;
    return response.ok ? { data: body, response } : { error: body, response };
  });
  return foundOf<Schemas['JobState']>(asked);
}
