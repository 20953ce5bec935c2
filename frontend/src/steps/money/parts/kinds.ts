import type { Schemas } from '@/api/client';

export const KINDS: Record<Schemas['LineKind'], string> = {
  modules: 'Modules',
  inverters: 'Inverters',
  electronics: 'At the modules',
  battery: 'Battery',
  racking: 'Racking',
  wiring: 'Wire and gear',
  labour: 'Work',
  permits: 'Permits',
  freight: 'Freight',
  travel: 'Travel',
  other: 'Other',
};

export const ORDER = Object.keys(KINDS) as Schemas['LineKind'][];
