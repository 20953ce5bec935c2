/** The three drawings of the survey, and the switch between them. */
import type { ReactNode } from 'react';
import { Button } from '@/ui/Button';

export type SurveyView = 'plane' | 'site' | 'scene';

export interface SurveyViewProps {
  /** The switch, for the end of the toolbar. */
  views: ReactNode;
}

const VIEWS: [SurveyView, string, string][] = [
  ['plane', 'Plane', '1'],
  ['site', 'Site', '2'],
  ['scene', '3-D', '3'],
];

interface ViewSwitchProps {
  view: SurveyView;
  onView: (view: SurveyView) => void;
}

export function ViewSwitch({ view, onView }: ViewSwitchProps) {
  return (
    <fieldset aria-label="Drawing" className="ml-auto flex gap-1">
      {VIEWS.map(([id, title, key]) => (
        <Button
          key={id}
          hint={key}
          weight={view === id ? 'pressed' : 'plain'}
          aria-pressed={view === id}
          onClick={() => onView(id)}
        >
          {title}
        </Button>
      ))}
    </fieldset>
  );
}
