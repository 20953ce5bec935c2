/** Ways to look at the year as the design is. */
export const YEAR_VIEWS = [
  { id: 'day', title: 'A day', hint: '1' },
  { id: 'waterfall', title: 'Loss chain', hint: '2' },
  { id: 'calendar', title: 'Clipping calendar', hint: '3' },
  { id: 'work', title: 'Inverter loading', hint: '4' },
  { id: 'own', title: 'Module-level MPPT', hint: '5' },
] as const;

/** What it could be, and the house it is for. */
export const STUDIES = [
  { id: 'sweep', title: 'Sweep', hint: '6' },
  { id: 'house', title: 'Self-consumption', hint: '7' },
  { id: 'compared', title: 'Options', hint: '8' },
  { id: 'bench', title: 'Measured day', hint: '9' },
  { id: 'buy', title: 'Recommendation', hint: '0' },
] as const;

export const VIEWS = [...YEAR_VIEWS, ...STUDIES] as const;
