/** What can be done with the modules that are held. */
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';

interface HeldBarProps {
  held: readonly string[];
  splitting: boolean;
  onSplit: (splitting: boolean) => void;
  onTurn: () => void;
  onRemove: () => void;
  onLetGo: () => void;
}

export function HeldBar({ held, splitting, onSplit, onTurn, onRemove, onLetGo }: HeldBarProps) {
  const { job, option, edit } = useJob();
  const [first] = held;
  return (
    <fieldset aria-label="Held modules" className="flex items-center gap-2">
      <span className="text-sm font-semibold whitespace-nowrap text-copper">
        {held.length} held
      </span>
      <Button hint="R" onClick={onTurn}>
        Turn
      </Button>
      {splitting && first ? (
        <TypedField
          label="Gap to the left"
          value=""
          placeholder="gap left of it"
          width={110}
          focusNow
          echo={(typed) => echoOf(typed, job.unit)}
          commit={(typed) =>
            edit({ kind: 'split-row', option_id: option.id, module_id: first, typed }).then(() =>
              onSplit(false),
            )
          }
          onLeave={() => onSplit(false)}
        />
      ) : (
        held.length === 1 && (
          <Button hint="G" onClick={() => onSplit(true)}>
            Gap
          </Button>
        )
      )}
      <Button hint="Del" onClick={onRemove}>
        Remove
      </Button>
      <Button hint="Esc" onClick={onLetGo}>
        Let go
      </Button>
    </fieldset>
  );
}
