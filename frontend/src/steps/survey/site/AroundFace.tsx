/** Trees, houses, poles and chimneys around: sizes, and where they are by sight or by hand. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { InlineName } from '@/ui/InlineName';
import { PickList } from '@/ui/PickList';
import { TypedField } from '@/ui/TypedField';
import { MONTHS } from '@/units/format';
import { echoOf } from '@/units/length';

type Source = Schemas['ShadeSource'];

interface AroundFaceProps {
  chosenId: string;
  onChoose: (id: string) => void;
}

export function AroundFace({ chosenId, onChoose }: AroundFaceProps) {
  const { job, survey } = useJob();
  const sources = job.survey.shade_sources;
  const chosen = sources.find((s) => s.id === chosenId) ?? sources[0];
  if (!chosen)
    return (
      <p className="text-sm text-ink-2">
        Nothing stands around yet. Take Tree or House above and click where it stands; far hills
        belong on the horizon.
      </p>
    );
  const view = survey.shade.find((s) => s.id === chosen.id);
  return (
    <div className="flex h-full gap-4">
      <PickList items={sources} chosenId={chosen.id} onChoose={onChoose} />
      <Sizes key={chosen.id} source={chosen} heightText={view?.height_text ?? ''} />
      <SightingFields key={`sighting ${chosen.id}`} source={chosen} />
    </div>
  );
}

const SIZES: Record<Schemas['ShadeKind'], ['width' | 'depth' | 'base' | 'trunk', string][]> = {
  tree: [
    ['width', 'Crown across'],
    ['base', 'Crown begins at'],
    ['trunk', 'Trunk across'],
  ],
  house: [
    ['width', 'Length'],
    ['depth', 'Depth'],
    ['base', 'Eaves at'],
  ],
  pole: [['width', 'Across']],
  chimney: [['width', 'Across']],
};

function Sizes({ source, heightText }: { source: Source; heightText: string }) {
  const { job, edit, act } = useJob();
  const set = (field: Schemas['ShadeField'], typed: string) =>
    edit({ kind: 'set-shade-field', shade_id: source.id, field, typed });
  const bySight = source.height === null && heightText !== '';
  return (
    <div className="flex w-[230px] shrink-0 flex-col gap-[3px]">
      <span className="flex items-baseline justify-between">
        <InlineName
          label="Name"
          hint="Click to rename"
          value={source.name}
          className="text-sm font-semibold"
          onName={(typed) => void set('name', typed)}
        />
        <Button onClick={() => act({ kind: 'remove-shade', shade_id: source.id })}>Remove</Button>
      </span>
      <TypedField
        label={bySight ? 'Height, by sight' : source.kind === 'house' ? 'Ridge height' : 'Height'}
        value={source.height?.typed ?? ''}
        placeholder={heightText || 'wanted'}
        tone={source.height ? 'plain' : bySight ? 'derived' : 'wanted'}
        width={84}
        align="right"
        showLabel
        echo={(typed) => (typed.trim() ? echoOf(typed, job.unit) : 'by the angle to its top')}
        commit={(typed) => set('height', typed)}
      />
      {SIZES[source.kind].map(([field, label]) => (
        <TypedField
          key={field}
          label={label}
          value={source[field].typed}
          width={84}
          align="right"
          showLabel
          echo={(typed) => echoOf(typed, job.unit)}
          commit={(typed) => set(field, typed)}
        />
      ))}
      {source.kind === 'house' && (
        <TypedField
          label="Ridge runs to bearing"
          value={`${source.turned_deg}°`}
          width={84}
          align="right"
          showLabel
          commit={(typed) => set('turned_deg', typed)}
        />
      )}
      {source.kind === 'tree' && (
        <span className="flex items-center justify-between gap-1.5 text-sm">
          <Choice
            label="Crown"
            value={source.crown}
            items={[
              { value: 'round', label: 'round' },
              { value: 'cone', label: 'cone' },
            ]}
            onChange={(crown) => void set('crown', crown)}
          />
          <Choice
            label="Leaf"
            value={source.leaf}
            items={[
              { value: 'evergreen', label: 'evergreen' },
              { value: 'deciduous', label: 'in leaf' },
            ]}
            onChange={(leaf) => void set('leaf', leaf)}
          />
          {source.leaf === 'deciduous' && (
            <TypedField
              label="Months in leaf, first to last"
              value={`${source.first_leaf_month}-${source.last_leaf_month}`}
              echo={() =>
                `by number: ${MONTHS[source.first_leaf_month - 1]} to ${MONTHS[source.last_leaf_month - 1]} is ${source.first_leaf_month}-${source.last_leaf_month}`
              }
              width={54}
              align="right"
              commit={(typed) => set('leaf_months', typed)}
            />
          )}
        </span>
      )}
    </div>
  );
}

function SightingFields({ source }: { source: Source }) {
  const { job, edit } = useJob();
  const { sighting } = source;
  const [adding, setAdding] = useState(false);
  const bearing = sighting
    ? sighting.compass_deg === null
      ? `${sighting.bearing_deg}`
      : `${sighting.compass_deg} compass`
    : '';
  const given = {
    bearing,
    distance: sighting?.distance.typed ?? '',
    top: sighting?.top_deg == null ? '' : `${sighting.top_deg}`,
    eye: sighting?.eye?.typed ?? '',
  };
  // Typed so far, until there is enough for a sighting.
  const [draft, setDraft] = useState<Partial<typeof given>>({});
  const shown = { ...given, ...draft };
  // The station: the first corner of the first plane, until a sighting names its own.
  const station = sighting?.station ?? job.survey.planes[0]?.at ?? { east_m: 0, north_m: 0 };
  const words: Record<keyof typeof given, string> = {
    bearing: 'Bearing to it',
    distance: 'Level distance',
    top: 'Angle up to its top',
    eye: 'Height of the eye',
  };
  const commit = (name: keyof typeof given) => (typed: string) => {
    const now = { ...shown, [name]: typed };
    const enough = now.bearing && now.distance && Boolean(now.top) === Boolean(now.eye);
    setDraft((old) => ({ ...old, [name]: typed }));
    if (!enough) return Promise.resolve();
    return edit({ kind: 'sight-shade', shade_id: source.id, station, ...now }).then(() =>
      // What was typed while the answer was on its way stays.
      setDraft((old) =>
        Object.fromEntries(
          Object.entries(old).filter(([key, value]) => now[key as keyof typeof now] !== value),
        ),
      ),
    );
  };
  if (!sighting && !adding)
    return (
      <div className="text-sm text-ink-2">
        <p className="mb-1.5">Placed by hand; drag it, or say where it was seen.</p>
        <Button onClick={() => setAdding(true)}>By bearing and distance</Button>
      </div>
    );
  return (
    <div className="flex w-[236px] shrink-0 flex-col gap-[3px]">
      <p className="text-xs text-ink-2">
        From the left eave corner of {job.survey.planes[0]?.name}, true or as read: “208.5 compass”.
      </p>
      {(Object.keys(words) as (keyof typeof given)[]).map((name) => (
        <TypedField
          key={name}
          label={words[name]}
          value={shown[name]}
          placeholder={name === 'top' || name === 'eye' ? 'if read' : 'wanted'}
          width={104}
          align="right"
          showLabel
          {...(name === 'distance' || name === 'eye'
            ? { echo: (typed: string) => echoOf(typed, job.unit) }
            : {})}
          commit={commit(name)}
        />
      ))}
      {sighting?.compass_deg != null && (
        <p className="text-xs text-ink-2">True bearing {sighting.bearing_deg.toFixed(1)}°.</p>
      )}
    </div>
  );
}
