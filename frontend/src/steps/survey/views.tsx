/** The switch between the three drawings of the survey. */
import type { ReactNode } from 'react';
import { ViewButtons } from '@/ui/ViewButtons';

export const VIEWS = [
  { id: 'plane', title: 'Plane', hint: '1' },
  { id: 'site', title: 'Site', hint: '2' },
  { id: 'scene', title: '3-D', hint: '3' },
] as const;

type SurveyView = (typeof VIEWS)[number]['id'];

export interface SurveyViewProps {
  /** The switch, for the end of the toolbar. */
  views: ReactNode;
}

interface ViewSwitchProps {
  view: SurveyView;
  onView: (view: SurveyView) => void;
}

export function ViewSwitch({ view, onView }: ViewSwitchProps) {
  return (
    <fieldset aria-label="Drawing" className="ml-auto flex gap-1">
      <ViewButtons views={VIEWS} view={view} onView={onView} />
    </fieldset>
  );
}
