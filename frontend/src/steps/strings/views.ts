export const VIEWS = [
  { id: 'wiring', title: 'Wiring', hint: '1' },
  { id: 'plans', title: 'Plans', hint: '2' },
  { id: 'equipment', title: 'Equipment', hint: '3' },
  { id: 'rules', title: 'Rules', hint: '4' },
  { id: 'out', title: 'Fixes', hint: '5' },
  { id: 'compare', title: 'Architectures', hint: '6' },
] as const;
