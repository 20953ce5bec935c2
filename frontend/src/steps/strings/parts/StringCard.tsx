/** The string that was clicked: to another tracker, turned, cut, joined, locked. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Toggle } from '@/ui/Toggle';
import { TrackerChoice } from './TrackerChoice';

interface StringCardProps {
  string: Schemas['ModuleString'];
  /** The module of it that was clicked. */
  moduleId: string;
  onGone: () => void;
}

const MOST_OTHERS = 6;

export function StringCard({ string, moduleId, onGone }: StringCardProps) {
  const { option, act } = useJob();
  const { tag } = string;
  const at = string.module_ids.indexOf(moduleId);
  const others = option.strings.filter((s) => s.tag !== tag);
  return (
    <Card
      title={`String ${tag}`}
      aside={`${string.module_ids.length} in series`}
      className="w-[270px] shrink-0"
    >
      <div className="flex flex-col gap-1.5 text-sm">
        <TrackerChoice
          label={`Tracker of string ${tag}`}
          number={string.tracker_number}
          onChange={(tracker_number) =>
            void act({ kind: 'move-string', option_id: option.id, tag, tracker_number })
          }
        />
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={() => void act({ kind: 'reverse-string', option_id: option.id, tag })}>
            Turn round
          </Button>
          <Button
            disabled={at < 1}
            onClick={() => {
              void act({ kind: 'cut-string', option_id: option.id, tag, from_id: moduleId });
              onGone();
            }}
          >
            Cut before {tag}
            {at + 1}
          </Button>
        </div>
        {others.length > 0 && (
          <fieldset className="flex flex-wrap items-center gap-1" aria-label="Join to its end">
            <span className="text-ink-2">Join to its end</span>
            {others.slice(0, MOST_OTHERS).map((s) => (
              <Button
                key={s.tag}
                aria-label={`Join string ${s.tag} to its end`}
                onClick={() =>
                  void act({
                    kind: 'join-strings',
                    option_id: option.id,
                    tag,
                    other_tag: s.tag,
                  })
                }
              >
                {s.tag}
              </Button>
            ))}
          </fieldset>
        )}
        {option.electronics.architecture === 'add-on-optimizers' && at >= 0 && (
          <Toggle
            on={option.electronics.fitted.includes(moduleId)}
            onChange={(on) =>
              void act({
                kind: 'fit-optimizers',
                option_id: option.id,
                module_ids: [moduleId],
                on,
              })
            }
          >
            Optimizer on {tag}
            {at + 1}
          </Toggle>
        )}
        <Toggle
          on={string.locked}
          onChange={(on) => void act({ kind: 'lock-string', option_id: option.id, tag, on })}
        >
          Locked: planning leaves it as it is
        </Toggle>
      </div>
    </Card>
  );
}
