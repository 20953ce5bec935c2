import type { StepManifest } from '@/plan/manifest';

export const money: StepManifest = {
  id: 'money',
  title: 'Money',
  unbuilt:
    'Here prices, tariff and incentives will turn the year’s energy into cost, savings and payback, option against option. This step is not built yet.',
};
