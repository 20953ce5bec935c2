/** A section through one table: glass, piles, what stands out of the ground and what is in it. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { echoOf, formatTape } from '@/units/length';

interface SectionCardProps {
  racked: Schemas['PlaneRackingView'];
  ground: Schemas['GroundView'];
}

const WIDE = 190;
const TALL = 128;
const SHOWN_DEEP_M = 1.0;

export function SectionCard({ racked, ground }: SectionCardProps) {
  const { job, option, edit } = useJob();
  const typed = option.racking.planes.find((p) => p.plane_id === racked.plane_id)?.embedment;
  const tape = (lengthM: number) => formatTape(lengthM, job.unit);
  const front = ground.piles.find((p) => !p.back);
  const back = ground.piles.find((p) => p.back && p.table === front?.table);
  const lengths = ground.piles.flatMap((p) => (p.length_m === null ? [] : [p.length_m]));
  return (
    <Card title="Section, first table" scrolls className="w-[244px] shrink-0">
      {front && back && <Section ground={ground} frontM={front.reveal_m} backM={back.reveal_m} />}
      <TypedField
        label="Piles in the ground"
        value={typed?.typed ?? ''}
        placeholder="engineer"
        width={92}
        align="right"
        showLabel
        echo={(text) => echoOf(text, job.unit)}
        commit={(text) =>
          edit({
            kind: 'set-racking-field',
            option_id: option.id,
            plane_id: racked.plane_id,
            field: 'embedment',
            typed: text,
          })
        }
      />
      <p className="mt-1 text-xs text-ink-2">
        {lengths.length > 0
          ? `Piles ${tape(Math.min(...lengths))} to ${tape(Math.max(...lengths))} long, 150 mm cut off above the head in it. `
          : 'How deep they stand is an engineer’s: soil, frost and pull-out by a test. '}
        Rails up the glass {tape(ground.rail_m)}, two a column, in one piece.
      </p>
    </Card>
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
