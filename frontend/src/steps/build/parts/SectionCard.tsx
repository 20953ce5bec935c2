/** A section through one table: glass, piles, what stands out of the ground and what is in it. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { dayName, figure } from '@/units/format';
import { echoOf, formatTape } from '@/units/length';

interface SectionCardProps {
  racked: Schemas['PlaneRackingView'];
  ground: Schemas['GroundView'];
}

const WIDE = 190;
const TALL = 128;
const SHOWN_DEEP_M = 1.0;
const CU_YD_PER_M3 = 1.30795;
const LAYS = [
  { value: 'conduit', label: 'plastic conduit' },
  { value: 'steel-conduit', label: 'steel conduit' },
  { value: 'cable', label: 'cable for burial' },
];

export function SectionCard({ racked, ground }: SectionCardProps) {
  const { job, option, edit } = useJob();
  const choice = option.racking.planes.find((p) => p.plane_id === racked.plane_id);
  const tape = (lengthM: number) => formatTape(lengthM, job.unit);
  const front = ground.piles.find((p) => !p.back);
  const back = ground.piles.find((p) => p.back && p.table === front?.table);
  const lengths = ground.piles.flatMap((p) => (p.length_m === null ? [] : [p.length_m]));
  const field = (name: Schemas['RackingField'], label: string, hint: string) => (
    <TypedField
      label={label}
      value={choice?.[name]?.typed ?? ''}
      placeholder={hint}
      width={92}
      align="right"
      showLabel
      echo={(text) => echoOf(text, job.unit)}
      commit={(text) =>
        edit({
          kind: 'set-racking-field',
          option_id: option.id,
          plane_id: racked.plane_id,
          field: name,
          typed: text,
        })
      }
    />
  );
  return (
    <Card title="Section, first table" scrolls className="w-[244px] shrink-0">
      {front && back && <Section ground={ground} frontM={front.reveal_m} backM={back.reveal_m} />}
      {field('embedment', 'Piles in the ground', 'engineer')}
      <p className="mt-1 text-xs text-ink-2">
        {lengths.length > 0
          ? `Piles ${tape(Math.min(...lengths))} to ${tape(Math.max(...lengths))} long, 150 mm cut off above the head in it. `
          : 'How deep they stand is an engineer’s: soil, frost and pull-out by a test. '}
        Rails up the glass {tape(ground.rail_m)}, two a column, in one piece.
      </p>
      {ground.falls.map((told) => (
        <p key={told} className="mt-1 text-xs">
          {told}
        </p>
      ))}
      {ground.stands.length > 0 && (
        <table className="mt-2 w-full text-xs" aria-label="Legs by tilt">
          <thead>
            <tr className="text-right text-ink-2">
              <th className="text-left font-normal">From</th>
              <th className="font-normal">Tilt</th>
              <th className="font-normal">Back legs</th>
              <th className="font-normal">Moved by</th>
            </tr>
          </thead>
          <tbody>
            {ground.stands.map((stand) => (
              <tr key={stand.from_day} className="text-right font-figure">
                <th scope="row" className="text-left font-sans font-normal">
                  {dayName(stand.from_day)}
                </th>
                <td>{figure(stand.tilt_deg)}°</td>
                <td>{tape(stand.back_leg_m)}</td>
                <td>
                  {stand.lift_m < 0 ? '−' : '+'}
                  {tape(Math.abs(stand.lift_m))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <h3 className="mt-2 mb-1 text-sm font-semibold">Trench to the house</h3>
      <div className="flex flex-col gap-1">
        <Choice
          label="What lies in it"
          value={choice?.trench_lay ?? 'conduit'}
          items={LAYS}
          onChange={(lay) =>
            void edit({
              kind: 'set-trench-lay',
              option_id: option.id,
              plane_id: racked.plane_id,
              lay: lay as Schemas['TrenchLay'],
            })
          }
        />
      </div>
      {ground.dug ? (
        <TrenchWords trench={ground.dug} />
      ) : (
        <p className="mt-1 text-xs text-ink-2">
          Its length follows once the panel stands on the site plan (Survey, Site).
        </p>
      )}
    </Card>
  );
}

function TrenchWords({ trench }: { trench: Schemas['Dug'] }) {
  const { job } = useJob();
  const tape = (lengthM: number) => formatTape(lengthM, job.unit);
  const bulk = (m3: number) =>
    job.unit === 'ft' ? `${figure(m3 * CU_YD_PER_M3, 1)} cu yd` : `${figure(m3, 1)} m³`;
  return (
    <p className="mt-1 text-xs">
      {tape(trench.length_m)} as drawn on the site plan, at least {tape(trench.least_depth_m)} deep:{' '}
      {tape(trench.cover_m)} of cover (from memory; deeper under a drive), the run and its bed of
      sand. {tape(trench.run_m)} of run with both ends brought up
      {trench.sticks > 0 &&
        `, ${trench.sticks === 1 ? 'one stick' : `${trench.sticks} sticks`} of 10 ft`}
      ; warning tape {tape(trench.tape_m)}, 300 mm above it; sand {bulk(trench.sand_m3)}, earth{' '}
      {bulk(trench.earth_m3)}. Ask for buried lines first.
    </p>
  );
}

interface SectionProps {
  ground: Schemas['GroundView'];
  frontM: number;
  backM: number;
}

function Section({ ground, frontM, backM }: SectionProps) {
  const { job } = useJob();
  const tilt = (ground.tilt_deg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(tilt), Math.sin(tilt)];
  const deepM = ground.embedment_m ?? SHOWN_DEEP_M;
  const frontX = ground.overhang_m * cos;
  const backX = (ground.overhang_m + ground.apart_m) * cos;
  // The ground falls from pile to pile as the piles say.
  const rise = frontM + ground.apart_m * sin - backM;
  const glass = (alongM: number) => ({
    x: alongM * cos,
    y: frontM + (alongM - ground.overhang_m) * sin,
  });
  const [low, high] = [glass(0), glass(ground.slant_m)];
  const widthM = high.x + 0.6;
  const heightM = Math.max(high.y, 0.5) + deepM + 0.3;
  const scale = Math.min(WIDE / widthM, TALL / heightM);
  const x = (m: number) => 18 + m * scale;
  const y = (m: number) => TALL - (m + deepM + 0.1) * scale;
  const groundAt = (m: number) => (rise / Math.max(backX - frontX, 0.01)) * (m - frontX);
  const tape = (m: number) => formatTape(m, job.unit);
  return (
    <svg width={WIDE + 26} height={TALL} role="img" aria-label="Section through the first table">
      <line
        x1={x(-0.2)}
        y1={y(groundAt(-0.2))}
        x2={x(widthM - 0.3)}
        y2={y(groundAt(widthM - 0.3))}
        stroke="var(--color-ink-2)"
      />
      <line
        x1={x(low.x)}
        y1={y(low.y)}
        x2={x(high.x)}
        y2={y(high.y)}
        stroke="var(--color-patina)"
        strokeWidth="5"
      />
      {(
        [
          ['front', frontX, frontM, 0],
          ['back', backX, backM, rise],
        ] as const
      ).map(([name, at, revealM, footM]) => (
        <g key={name}>
          <line
            x1={x(at)}
            y1={y(footM + revealM)}
            x2={x(at)}
            y2={y(footM)}
            stroke="var(--color-ink)"
            strokeWidth="4"
          />
          <line
            x1={x(at)}
            y1={y(footM)}
            x2={x(at)}
            y2={y(footM - deepM)}
            stroke="var(--color-ink)"
            strokeWidth="4"
            strokeDasharray={ground.embedment_m === null ? '4 4' : undefined}
            strokeOpacity="0.55"
          />
          <text x={x(at) + 6} y={y(footM + revealM / 2) + 4} fontSize="12" className="fill-ink">
            {tape(revealM)}
          </text>
        </g>
      ))}
      <text x={x(low.x) + 2} y={y(low.y) - 10} fontSize="12" className="fill-ink-2">
        {Math.round(ground.tilt_deg)}°
      </text>
    </svg>
  );
}
