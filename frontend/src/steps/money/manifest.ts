import type { StepManifest } from '@/plan/manifest';
import { VIEWS } from './views';

export const money: StepManifest = {
  id: 'money',
  title: 'Money',
  words: 'cost price payback savings tariff incentives loan options',
  views: VIEWS,
  sought: [
    { name: 'Price from cost by', view: 'price', words: 'markup margin' },
    { name: 'Markup or margin', view: 'price', words: 'profit overhead' },
    { name: 'Sales tax', view: 'price', words: 'vat gst' },
    { name: 'An hour of work', view: 'price', words: 'labour wage rate' },
    { name: 'Holidays', view: 'bills', words: 'time of use weekend' },
    { name: 'True-up after', view: 'bills', words: 'net metering settlement month' },
    { name: 'Discount rate', view: 'years', words: 'present value' },
    { name: 'Energy prices rise', view: 'years', words: 'escalation inflation' },
    { name: 'Share on loan', view: 'years', words: 'finance credit' },
    { name: 'Inverter replaced in year', view: 'years', words: 'replacement' },
    { name: 'Changing a table’s tilt, each time', view: 'years', words: 'seasonal labour' },
    { name: 'Prices of arrays change', view: 'later', words: 'wait cheaper next year' },
    { name: 'The rest is built in year', view: 'later', words: 'stages phases' },
  ],
  fetch: () => import('./MoneyStep'),
};
