/** The tape readings of an outline: their lines on the drawing, and the fields in them. */
import type { RoofPlane } from '@/api/client';
import type { Camera } from '@/drawing/camera';
import { Dimension, dimensionMiddle } from '@/drawing/Dimension';
import { At } from '@/drawing/Pane';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { TypedField } from '@/ui/TypedField';
import { capital } from '@/units/format';
import { echoOf } from '@/units/length';
import type { ReadingKind, Wanted } from '../planeTool';
import { clearFields, cornerPx, readingLine, roomiest, sideLines } from './outlineGeometry';

const WIDE_PX = 92;
const NARROW_PX = 66;
const OTHERS = ['diagonal', 'offset', 'along'] as const;

const isOther = (kind: ReadingKind) => (OTHERS as readonly string[]).includes(kind);

interface OutlineReadingsProps {
  camera: Camera;
  plane: RoofPlane;
  seen: PlaneSurvey;
}

export function ReadingLines({ camera, seen }: Omit<OutlineReadingsProps, 'plane'>) {
  return (
    <>
      {sideLines(camera, seen.corners).map((line) => (
        <g key={line.edge} pointerEvents="none">
          {line.roomy && (
            <Dimension
              from={line.from}
              to={line.to}
              offPx={line.offPx}
              gapPx={line.level ? WIDE_PX + 8 : 34}
            />
          )}
          {line.roomy && (
            <text
              x={line.name.xPx}
              y={line.name.yPx}
              fontSize="13"
              fill="var(--color-ink-2)"
              textAnchor={line.anchor}
            >
              {seen.edges[line.edge]?.kind}
            </text>
          )}
        </g>
      ))}
      {seen.readings.map((reading) => {
        const line = readingLine(camera, seen.corners, reading.kind, reading.at);
        return (
          line && (
            <line
              key={`${reading.kind} ${reading.at}`}
              x1={line[0].xPx}
              y1={line[0].yPx}
              x2={line[1].xPx}
              y2={line[1].yPx}
              stroke={reading.suspect ? 'var(--color-warn)' : 'var(--color-field)'}
              strokeDasharray={reading.left_out ? '1 5' : '4 4'}
              pointerEvents="none"
            />
          )
        );
      })}
    </>
  );
}

interface ReadingFieldsProps extends OutlineReadingsProps {
  wanted: Wanted | null;
  onSettled: () => void;
}

export function ReadingFields({ camera, plane, seen, wanted, onSettled }: ReadingFieldsProps) {
  const { job, edit } = useJob();
  const echo = (typed: string) => (typed.trim() ? echoOf(typed, job.unit) : 'takes it back');
  const commit = (reading: ReadingKind, at: readonly number[]) => (typed: string) =>
    edit({ kind: 'set-reading', plane_id: plane.id, reading, at: [...at], typed });
  const sides = sideLines(camera, seen.corners);
  const taken = [
    ...seen.corners.map((_, i) => cornerPx(camera, seen.corners, i)),
    ...sides.map((line) => dimensionMiddle(line.from, line.to, line.offPx)),
  ];
  const others = seen.readings
    .filter((r) => isOther(r.kind))
    .flatMap((reading) => {
      const line = readingLine(camera, seen.corners, reading.kind, reading.at);
      if (!line) return [];
      const at = roomiest(line, taken);
      taken.push(at);
      return [{ reading, at }];
    });
  const sideSpots = sides.map((line) => ({
    at: dimensionMiddle(line.from, line.to, line.offPx),
    widthPx: line.roomy ? WIDE_PX : NARROW_PX,
  }));
  const clear = clearFields([
    ...sideSpots,
    ...others.map(({ at }) => ({ at, widthPx: NARROW_PX + 14 })),
  ]);
  const hidden = clear.filter((shown) => !shown).length;
  const asked = wanted && readingLine(camera, seen.corners, wanted.reading, wanted.at);
  return (
    <>
      {sides.map((line, i) => {
        const spot = sideSpots[i];
        const edge = seen.edges[line.edge];
        const reading = seen.readings.find((r) => r.kind === 'side' && r.at[0] === line.edge);
        if (!spot || !clear[i]) return null;
        return (
          <At key={line.edge} {...spot.at}>
            <TypedField
              label={capital(edge?.name ?? '')}
              value={reading?.typed ?? ''}
              placeholder={edge?.length_text || '?'}
              width={spot.widthPx}
              noteAbove={edge?.kind === 'eave'}
              tone={toneOf(reading, edge?.state)}
              echo={echo}
              commit={commit('side', [line.edge])}
            />
          </At>
        );
      })}
      {others.map(
        ({ reading, at }, i) =>
          clear[sides.length + i] && (
            <At key={`${reading.kind} ${reading.at}`} {...at}>
              <TypedField
                label={capital(reading.name)}
                value={reading.typed}
                width={NARROW_PX + 14}
                tone={toneOf(reading, undefined)}
                echo={echo}
                commit={commit(reading.kind, reading.at)}
              />
            </At>
          ),
      )}
      {hidden > 0 && (
        <p className="absolute bottom-2 left-3 text-xs text-ink-2">
          {hidden === 1 ? 'One more length' : `${hidden} more lengths`}: zoom in
        </p>
      )}
      {wanted && asked && (
        <At {...roomiest(asked, taken)}>
          <TypedField
            label="Reading of the tape"
            value=""
            placeholder="read"
            width={NARROW_PX + 14}
            tone="wanted"
            focusNow
            echo={echo}
            commit={(typed) => commit(wanted.reading, wanted.at)(typed).then(onSettled)}
            onLeave={onSettled}
          />
        </At>
      )}
    </>
  );
}

function toneOf(
  reading: PlaneSurvey['readings'][number] | undefined,
  state: PlaneSurvey['edges'][number]['state'] | undefined,
) {
  if (reading?.suspect) return 'doubt' as const;
  if (reading && !reading.derived && !reading.left_out) return 'plain' as const;
  return state === 'loose' ? ('wanted' as const) : ('derived' as const);
}
