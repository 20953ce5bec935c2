export const VIEWS = [
  { id: 'one', title: 'Design sheet', hint: '1', words: 'one page summary' },
  {
    id: 'set',
    title: 'Plan set',
    hint: '2',
    words: 'permit utility crew owner drawings dxf pdf cover site plan calculations labels',
  },
] as const;
