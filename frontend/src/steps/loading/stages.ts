/** The steps from sunlight to meter in words: what each is, and how it is worked out. */
import type { Schemas } from '@/api/client';

type Step = Schemas['Step'];

export const STEP_TITLES: Record<Step, string> = {
  sunlight: 'Sunlight on the glass',
  shade: 'Shade',
  snow: 'Snow',
  dirt: 'Soiling',
  glass: 'Incidence-angle loss (IAM)',
  back: 'Rear-side gain',
  'low-light': 'Low irradiance',
  heat: 'Cell temperature',
  uneven: 'Shading mismatch',
  optimizers: 'Optimizers',
  tracker: 'MPPT limit loss',
  mismatch: 'Module mismatch',
  age: 'First-year degradation',
  wiring: 'DC wiring',
  conversion: 'Inverter',
  night: 'Night consumption',
  limit: 'Clipping',
  hot: 'Thermal derating',
  'ac-wiring': 'AC wiring',
  export: 'Curtailed by the export limit',
  outage: 'Downtime',
};

export const STEP_WORKINGS: Record<Step, string> = {
  sunlight:
    'Light on the free glass, step by step: rated watts × W/m² ÷ 1000. Sky by Perez et al. 1990, the ground by its reflection.',
  shade: 'The share of beam and sky that reaches each substring, from the sky over its points.',
  snow: 'Townsend and Powers 2011 from the months’ snowfall; none is typed, none is taken.',
  dirt: 'The month’s share, typed in Sun under Weather, or the usual allowance.',
  glass: 'One sheet of glass: refraction and absorption by the angle of each step’s light.',
  back: 'Light on the back of bifacial modules on legs, times the datasheet’s bifaciality.',
  'low-light':
    'Each substring at its own best with cells at 25 °C: the single diode at that light.',
  heat: 'The same with cells as warm as air, wind, light and mounting make them (Faiman 2008).',
  uneven:
    'Substrings in series share one current, strings in parallel one voltage; bypass diodes let the shaded ones be passed by.',
  optimizers: 'What converters at single modules win back of it, less what they take themselves.',
  tracker: 'The best point inside the window and current of each tracker, nothing below its start.',
  mismatch: 'An allowance for modules that differ; common practice, no source.',
  age: 'What the module’s warranty grants for the first year; the usual 2 % where its sheet is silent.',
  wiring: 'An allowance until runs are drawn in Build; common practice, no source.',
  conversion: 'The loss curves through the datasheet’s efficiencies, by load and DC voltage.',
  night: 'The datasheet’s watts in every dark hour.',
  limit:
    'What each step’s mean would give above the inverter’s AC watts. Finer steps clip more. The trackers then draw less: nothing of it turns to heat.',
  hot: 'The datasheet’s derating by air is one of settled cabinets: the cabinet stands above the air by what conversion loses and follows with a lag, so that a short peak passes and a day at the limit does not.',
  'ac-wiring':
    'An allowance until the run to the panel is drawn in Build; common practice, no source.',
  export:
    'What would leave above the grid’s export limit once the house has taken its use (Self-consumption); all of it where no use is known.',
  outage: 'An allowance for days the plant stands still; common practice, no source.',
};
