export const VIEWS = [
  { id: 'one', title: 'Design sheet', hint: '1', words: 'one page summary' },
  {
    id: 'set',
    title: 'Plan set',
    hint: '2',
    words: 'permit utility crew owner drawings dxf pdf cover site plan calculations labels',
  },
  {
    id: 'packet',
    title: 'Packet',
    hint: '3',
    words: 'utility authority approval permit attachments checklist portal practice log',
  },
  {
    id: 'work',
    title: 'Plan of work',
    hint: '4',
    words: 'schedule calendar ics days crew delivery inspection weather hold',
  },
] as const;
