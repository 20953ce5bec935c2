export const VIEWS = [
  {
    id: 'price',
    title: 'Price',
    hint: '1',
    words: 'cost list parts markup margin quote incentives',
  },
  { id: 'bills', title: 'Bills', hint: '2', words: 'tariff time of use tiers net metering export' },
  { id: 'years', title: 'Years', hint: '3', words: 'payback cash flow present value return loan' },
  { id: 'options', title: 'Options', hint: '4', words: 'compare against cheaper which one' },
  { id: 'moves', title: 'Next moves', hint: '5', words: 'better improve advice rank what next' },
  {
    id: 'later',
    title: 'Now or later',
    hint: '6',
    words: 'wait next year stages bays second inverter expand',
  },
  { id: 'sure', title: 'How sure', hint: '7', words: 'tornado risk sensitivity band uncertainty' },
] as const;
