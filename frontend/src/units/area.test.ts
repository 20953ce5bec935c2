import { expect, test } from 'vitest';
import { areaText } from './area';

test('an area says how far it is known, never to nothing', () => {
  expect(areaText(78.97, 0.26, 'm')).toBe('79.0 ± 0.3 m²');
  expect(areaText(78.97, 0.26, 'ft')).toBe('850 ± 3 ft²');
  expect(areaText(10, 0.001, 'm')).toBe('10.0 ± 0.1 m²');
  expect(areaText(10, null, 'ft')).toBe('108 ft²');
});
