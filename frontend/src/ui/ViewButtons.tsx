/** The views of a step as buttons, the one in view pressed; each names its key. */
import { Button } from './Button';

interface ViewButtonsProps<Id extends string> {
  views: readonly { id: Id; title: string; hint: string }[];
  view: Id;
  onView: (view: Id) => void;
}

export function ViewButtons<Id extends string>({ views, view, onView }: ViewButtonsProps<Id>) {
  return views.map(({ id, title, hint }) => (
    <Button
      key={id}
      hint={hint}
      weight={view === id ? 'pressed' : 'plain'}
      aria-pressed={view === id}
      onClick={() => onView(id)}
    >
      {title}
    </Button>
  ));
}
