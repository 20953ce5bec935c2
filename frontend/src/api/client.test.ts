import { expect, test } from 'vitest';
import { ProblemError, unwrap } from './client';

const response = (status: number) => new Response(null, { status });

test('data comes through', async () => {
  const answer = Promise.resolve({ data: { jobs: [] }, response: response(200) });
  await expect(unwrap(answer)).resolves.toEqual({ jobs: [] });
});

test('a problem keeps its sentence, code, field and the job it was kept as', async () => {
  const error = {
    code: 'save.conflict',
    message: 'changed elsewhere',
    field: 'eave',
    kept_job_id: 'x',
  };
  const failed = await unwrap(Promise.resolve({ error, response: response(409) })).catch(
    (e: ProblemError) => e,
  );
  expect(failed).toBeInstanceOf(ProblemError);
  expect(failed).toMatchObject({
    message: 'changed elsewhere',
    code: 'save.conflict',
    field: 'eave',
    keptJobId: 'x',
  });
});

test('an answer without a body still says something', async () => {
  const failed = await unwrap(Promise.resolve({ error: undefined, response: response(502) })).catch(
    (e) => e,
  );
  expect((failed as ProblemError).message).toBe('The program answered 502.');
});

test('a program that does not answer is told with the next move', async () => {
  const failed = await unwrap(Promise.reject(new TypeError('fetch failed'))).catch(
    (e: ProblemError) => e,
  );
  expect((failed as ProblemError).code).toBe('network');
  expect((failed as ProblemError).message).toContain('Everything saved is safe');
});

test('an abandoned question stays abandoned', async () => {
  const abandoned = new DOMException('aborted', 'AbortError');
  await expect(unwrap(Promise.reject(abandoned))).rejects.toBe(abandoned);
});
