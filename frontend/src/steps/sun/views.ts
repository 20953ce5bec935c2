export const VIEWS = [
  { id: 'shade', title: 'Shade', hint: '1', words: 'map loss access' },
  { id: 'path', title: 'Sun path', hint: '2', words: 'sky horizon solstice chart' },
  { id: 'day', title: 'Shadows', hint: '3', words: 'hour day moment' },
  { id: 'who', title: 'Shade sources', hint: '4', words: 'tree trim culprit obstruction' },
  {
    id: 'weather',
    title: 'Weather',
    hint: '5',
    words: 'irradiance temperature soiling snow albedo epw file climate',
  },
  { id: 'angles', title: 'Angles', hint: '6', words: 'tilt azimuth orientation east west best' },
] as const;
