import { beforeEach, expect, test } from 'vitest';
import { keepPlace, lastPlace } from './lastPlace';

beforeEach(() => localStorage.clear());

test('a job opens where it was left, one never opened at its brief', () => {
  expect(lastPlace('kiln')).toBe('/jobs/kiln/a/brief');
  keepPlace('kiln', '/jobs/kiln/b/sun?view=path');
  expect(lastPlace('kiln')).toBe('/jobs/kiln/b/sun?view=path');
  expect(lastPlace('mill')).toBe('/jobs/mill/a/brief');
});

test('what is no place of the job is not gone to', () => {
  keepPlace('kiln', 'https://elsewhere/');
  expect(lastPlace('kiln')).toBe('/jobs/kiln/a/brief');
});
