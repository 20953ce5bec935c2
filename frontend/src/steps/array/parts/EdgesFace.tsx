/** What stays free along the edges: a set to start from, its widths, the path up the roof. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Edit, RoofPlane, Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

const NONE = 'own';
const PATH_ALONG: Schemas['EdgeKind'][] = ['rake', 'hip', 'valley'];

export function EdgesFace({ plane }: { plane: RoofPlane }) {
  const { job, edit, act } = useJob();
  const shelf = useQuery(shelfQuery);
  const [wanted, setWanted] = useState('');
  const packs = shelf.data?.setback_packs ?? [];
  const pack = packs.find((p) => p.id === (wanted || plane.setback_pack));
  const kinds = [...new Set(plane.outline.edges)];
  const echo = (typed: string) => echoOf(typed, job.unit);
  const apply = (id: string, planes: RoofPlane[], measures = { width: '', height: '' }): Edit => ({
    kind: 'apply-setback-pack',
    plane_ids: planes.map((p) => p.id),
    pack_id: id,
    least_width: measures.width,
    mean_height: measures.height,
  });
  const taken = () => setWanted('');
  const choose = (id: string) => {
    if (packs.find((p) => p.id === id)?.edge_zone) setWanted(id);
    else if (id !== NONE) void act(apply(id, [plane])).then(taken);
  };
  const path = plane.access;
  const changed = pack?.edges.some(
    ({ edge, width_m: widthM }) =>
      kinds.includes(edge) && Math.abs(plane.setbacks[edge].value_m - widthM) > 5e-4,
  );
  return (
    <div className="flex flex-col gap-1">
      <div className="flex items-center gap-2">
        <Choice
          label="Set of free strips"
          value={pack?.id ?? NONE}
          items={[
            ...(pack ? [] : [{ value: NONE, label: 'As surveyed' }]),
            ...packs.map((p) => ({ value: p.id, label: p.title })),
          ]}
          onChange={choose}
          className="min-w-0 grow"
        />
        {pack && !pack.edge_zone && job.survey.planes.length > 1 && (
          <Button onClick={() => void act(apply(pack.id, job.survey.planes)).then(taken)}>
            On all planes
          </Button>
        )}
      </div>
      {wanted && pack?.edge_zone && (
        <HouseMeasures onGiven={(m) => edit(apply(pack.id, [plane], m)).then(taken)} />
      )}
      <fieldset aria-label="Free strips" className="grid grid-cols-2 gap-x-4 gap-y-[3px]">
        {kinds.map((kind) => (
          <TypedField
            key={kind}
            label={`${kind[0]?.toUpperCase()}${kind.slice(1)} strip`}
            value={plane.setbacks[kind].typed}
            width={62}
            align="right"
            showLabel
            echo={echo}
            commit={(typed) =>
              edit({ kind: 'set-plane-field', plane_id: plane.id, field: `setback_${kind}`, typed })
            }
          />
        ))}
        <TypedField
          label="Path up"
          value={path?.width.typed ?? ''}
          placeholder="none"
          width={62}
          align="right"
          showLabel
          echo={echo}
          commit={(typed) =>
            edit({
              kind: 'set-access-path',
              plane_id: plane.id,
              typed,
              along: path?.along ?? PATH_ALONG,
            })
          }
        />
      </fieldset>
      {pack && (
        <p className="text-xs text-ink-2">
          {changed && <b className="font-semibold">Widths changed since. </b>}
          {pack.told} {pack.source.document} ({pack.source.status.replace('-', ' ')}).{' '}
          {pack.confirm}
        </p>
      )}
    </div>
  );
}

interface HouseMeasuresProps {
  onGiven: (measures: { width: string; height: string }) => Promise<unknown>;
}

/** The two measures a wind zone is worked out from. */
function HouseMeasures({ onGiven }: HouseMeasuresProps) {
  const [width, setWidth] = useState('');
  return (
    <div className="flex flex-col gap-[3px]">
      <TypedField
        label="Least width of the house"
        value={width}
        width={80}
        align="right"
        showLabel
        focusNow
        commit={(typed) => Promise.resolve(setWidth(typed))}
      />
      <TypedField
        label="Mean roof height"
        value=""
        width={80}
        align="right"
        showLabel
        commit={(height) => onGiven({ width, height })}
      />
    </div>
  );
}
