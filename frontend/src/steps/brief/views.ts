/** The parts of the brief, in the order they are asked. */
import type { Sought } from '@/plan/manifest';

export const VIEWS = [
  { id: 'place', title: 'Place', words: 'address town location weather temperature climate code' },
  { id: 'bills', title: 'Bills', words: 'usage consumption kWh electricity utility' },
  { id: 'loads', title: 'Loads to come', words: 'car EV heat pump pool future use' },
  {
    id: 'grid',
    title: 'Grid rules',
    words: 'utility tariff net metering rebate cap interconnection',
  },
  { id: 'approval', title: 'Approval', words: 'permit interconnection application fee' },
  { id: 'house', title: 'House and wishes', words: 'panel service breaker battery owner customer' },
  { id: 'shelf', title: 'Shelf', words: 'stock warehouse parts' },
] as const;

export const SOUGHT: readonly Sought[] = [
  { name: 'Find a place', view: 'place', words: 'address town city location' },
  { name: 'Elevation', view: 'place', words: 'altitude height above sea' },
  { name: 'Lat., lon.', view: 'place', words: 'latitude longitude coordinates position' },
  { name: 'Coldest air, °C', view: 'place', words: 'temperature minimum design low winter' },
  { name: 'Hottest air, °C', view: 'place', words: 'temperature maximum design high summer' },
  { name: 'Climate type', view: 'place', words: 'weather' },
  { name: 'Code family', view: 'place', words: 'NEC IEC rules standard country' },
  { name: 'Budget', view: 'bills', words: 'money price cost' },
  { name: 'Kind of target', view: 'bills', words: 'goal how many modules offset' },
  { name: 'Export limit', view: 'grid', words: 'feed in curtail utility' },
  { name: 'Rebate', view: 'grid', words: 'incentive' },
  { name: 'Metering', view: 'grid', words: 'net metering billing' },
  { name: 'Fixed charge', view: 'grid', words: 'tariff bill' },
  { name: 'Main breaker', view: 'house', words: 'panel service amps' },
  { name: 'Busbar of the panel', view: 'house', words: 'bus bar rating amps' },
  { name: 'Where the source breaker stands', view: 'house', words: 'backfeed 120 busbar' },
  { name: 'Modules to come later', view: 'house', words: 'expand future' },
];
