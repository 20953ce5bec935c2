/** The terms of a grid tariff as Brief and Money both offer them. */

export const METERING = [
  { value: 'net', label: 'net metering' },
  { value: 'net-billing', label: 'surplus credited' },
  { value: 'all-sold', label: 'all sold' },
  { value: 'unpaid', label: 'export unpaid' },
];

export const CHARGED_PER = [
  { value: 'bill', label: 'charges a bill' },
  { value: 'day', label: 'charges a day' },
];
