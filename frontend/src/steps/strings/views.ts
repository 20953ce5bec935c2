export const VIEWS = [
  { id: 'wiring', title: 'Wiring', hint: '1', words: 'tracker mppt voltage current thread' },
  { id: 'plans', title: 'Plans', hint: '2', words: 'legal lengths series parallel' },
  { id: 'equipment', title: 'Equipment', hint: '3', words: 'inverter module microinverter choose' },
  {
    id: 'rules',
    title: 'Rules',
    hint: '4',
    words: 'code method limit safety shutdown fuse ageing',
  },
  { id: 'out', title: 'Fixes', hint: '5', words: 'remedy wrong broken stop ways out solve' },
  {
    id: 'compare',
    title: 'Architectures',
    hint: '6',
    words: 'compare optimizers microinverters string',
  },
] as const;
