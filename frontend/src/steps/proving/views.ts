export const VIEWS = [
  {
    id: 'moment',
    title: 'Is it normal?',
    hint: '1',
    words: 'moment now expected reading sky hour compare arrays sister clamp irradiance',
  },
  {
    id: 'records',
    title: 'Records',
    hint: '2',
    words: 'as built serial sticker scan torque tilt inspection photo flashing log',
  },
  {
    id: 'tests',
    title: 'Commissioning',
    hint: '3',
    words: 'test voc isc insulation polarity meter expected csv',
  },
  {
    id: 'fault',
    title: 'Find the fault',
    hint: '4',
    words: 'diagnose fault cause next test swap low string trail',
  },
  {
    id: 'yard',
    title: 'Practice yard',
    hint: '5',
    words: 'practise simulator train score debrief',
  },
  {
    id: 'output',
    title: 'Made and due',
    hint: '6',
    words: 'production gateway log csv performance ratio soiling clipping month yield module',
  },
] as const;
