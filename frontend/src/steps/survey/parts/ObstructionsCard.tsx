/** The obstructions of the plane: choose one to see and type its sizes. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { isRound } from '@/plan/scene';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

interface ObstructionsCardProps {
  plane: RoofPlane;
  chosenId: string;
  onChoose: (id: string) => void;
  onRemove: () => void;
}

export function ObstructionsCard({ plane, chosenId, onChoose, onRemove }: ObstructionsCardProps) {
  const chosen = plane.obstructions.find((o) => o.id === chosenId);
  return (
    <Card
      title="Obstructions"
      aside={`${plane.obstructions.length} on this plane`}
      className="flex min-w-[330px] grow flex-col"
    >
      {plane.obstructions.length === 0 && (
        <p className="text-sm text-ink-2">
          None yet. Choose what stands there, then click the roof where it stands.
        </p>
      )}
      <div className="flex min-h-0 grow gap-3">
        <ul className="w-[110px] shrink-0 overflow-y-auto">
          {plane.obstructions.map((o) => (
            <li key={o.id}>
              <button
                type="button"
                aria-pressed={o.id === chosenId}
                onClick={() => onChoose(o.id)}
                className={`min-h-[26px] w-full rounded-sm px-2 text-left text-sm ${o.id === chosenId ? 'bg-copper-wash font-medium' : 'hover:bg-paper'}`}
              >
                {o.name}
              </button>
            </li>
          ))}
        </ul>
        {chosen ? (
          <Sizes key={chosen.id} plane={plane} obstruction={chosen} onRemove={onRemove} />
        ) : (
          plane.obstructions.length > 0 && (
            <p className="text-sm text-ink-2">
              Choose one, here or on the roof, to type its offsets and sizes or to drag it.
            </p>
          )
        )}
      </div>
    </Card>
  );
}

interface SizesProps {
  plane: RoofPlane;
  obstruction: Schemas['Obstruction'];
  onRemove: () => void;
}

function Sizes({ plane, obstruction, onRemove }: SizesProps) {
  const { job, edit } = useJob();
  const fields: [Schemas['ObstructionField'], string][] = isRound(obstruction.kind)
    ? [['width', 'Diameter']]
    : [
        ['width', 'Along the eave'],
        ['depth', 'Up the slope'],
      ];
  fields.push(['height', 'Height'], ['clearance', 'Keep clear']);
  return (
    <div className="flex grow flex-col gap-[3px]">
      {fields.map(([field, label]) => (
        <TypedField
          key={field}
          label={label}
          value={(obstruction[field as keyof typeof obstruction] as Schemas['Taped']).typed}
          width={84}
          align="right"
          showLabel
          echo={(typed) => echoOf(typed, job.unit)}
          commit={(typed) =>
            edit({
              kind: 'set-obstruction-field',
              plane_id: plane.id,
              obstruction_id: obstruction.id,
              field,
              typed,
            })
          }
        />
      ))}
      <span className="mt-1">
        <Button onClick={onRemove} hint="Delete">
          Remove {obstruction.name}
        </Button>
      </span>
    </div>
  );
}
