/** Ways to look at the year as the design is. */
export const YEAR_VIEWS = [
  { id: 'day', title: 'A day', hint: '1', words: 'clipping limit curve power' },
  { id: 'waterfall', title: 'Loss chain', hint: '2', words: 'waterfall losses performance ratio' },
  { id: 'calendar', title: 'Clipping calendar', hint: '3', words: 'month hour heat map' },
  {
    id: 'work',
    title: 'Inverter loading',
    hint: '4',
    words: 'efficiency hours load temperature derating',
  },
  { id: 'own', title: 'Module-level MPPT', hint: '5', words: 'optimizer microinverter' },
] as const;

/** What it could be, and the house it is for. */
export const STUDIES = [
  {
    id: 'sweep',
    title: 'Sweep',
    hint: '6',
    words: 'dc ac ratio size more fewer modules oversizing',
  },
  { id: 'house', title: 'Self-consumption', hint: '7', words: 'house battery storage own use' },
  { id: 'compared', title: 'Options', hint: '8', words: 'compare before change' },
  { id: 'bench', title: 'Measured day', hint: '9', words: 'bench test module meter' },
  { id: 'buy', title: 'Recommendation', hint: '0', words: 'what to buy best choose' },
] as const;

export const VIEWS = [...YEAR_VIEWS, ...STUDIES] as const;
