/** What can be taken in hand over a plane, or done with what is held; and the module there is. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import type { Orientation } from '@/plan/modules';
import { stockFirst } from '@/plan/stock';
import { Button } from '@/ui/Button';
import { Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import type { Act, InHand } from '../inHand';
import { HeldBar } from './HeldBar';

interface ArrayToolbarProps {
  inHand: InHand;
  held: readonly string[];
  act: (act: Act) => void;
  /** How the modules that are there lie, as the ways of a fill. */
  lying: string;
  orientation: Orientation;
  modules: Schemas['ModuleSheet'][];
  taken: number;
  places: number;
  onFill: (ways: Schemas['Ways']) => void;
  onTurn: () => void;
  onRemove: () => void;
}

const FILLS = { P: 'Portrait', L: 'Landscape', PL: 'Mixed' };

export function ArrayToolbar(props: ArrayToolbarProps) {
  const { inHand, held, act, lying, orientation, taken, places, onFill, onTurn, onRemove } = props;
  const { job, option, act: edit } = useJob();
  const { hand } = inHand;
  return (
    <Toolbar>
      {held.length > 0 ? (
        <HeldBar
          held={held}
          splitting={inHand.asks === 'gap'}
          onSplit={(on) => act(on ? { do: 'ask', what: 'gap', of: held } : { do: 'asked' })}
          onTurn={onTurn}
          onRemove={onRemove}
          onLetGo={() => act({ do: 'let-go' })}
        />
      ) : (
        <>
          {(['P', 'L', 'PL'] as const).map((ways) => (
            <Button
              key={ways}
              hint={ways === 'PL' ? 'M' : ways}
              weight={ways === lying ? 'pressed' : 'plain'}
              onClick={() => onFill(ways)}
            >
              {FILLS[ways]}
            </Button>
          ))}
          <Button
            hint="H"
            weight={hand.kind === 'hold' ? 'pressed' : 'plain'}
            aria-pressed={hand.kind === 'hold'}
            onClick={() => act({ do: 'take', hand: { kind: 'hold' } })}
          >
            Hold
          </Button>
          <Button
            hint="N"
            weight={hand.kind === 'add' ? 'pressed' : 'plain'}
            aria-pressed={hand.kind === 'add'}
            onClick={() => act({ do: 'take', hand: { kind: 'add', orientation } })}
          >
            Add
          </Button>
        </>
      )}
      <Choice
        label="Module"
        value={option.module_id}
        items={stockFirst(props.modules, job.brief.stock, 'module')}
        onChange={(module_id) => edit({ kind: 'choose-module', option_id: option.id, module_id })}
        className="min-w-0 max-w-[230px]"
      />
      <span className="grow" />
      <span className="text-sm whitespace-nowrap text-ink-2">
        {places > 0 ? `${taken} of ${places} places taken` : 'Nothing placed yet'}
      </span>
    </Toolbar>
  );
}
