export const VIEWS = [
  { id: 'shade', title: 'Shade', hint: '1' },
  { id: 'path', title: 'Sun path', hint: '2' },
  { id: 'day', title: 'Shadows', hint: '3' },
  { id: 'who', title: 'Shade sources', hint: '4' },
  { id: 'weather', title: 'Weather', hint: '5' },
  { id: 'angles', title: 'Angles', hint: '6' },
] as const;
