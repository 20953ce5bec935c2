/** The switch between the three drawings of the survey. */
import type { ReactNode } from 'react';
import type { Sought } from '@/plan/manifest';
import { ViewButtons } from '@/ui/ViewButtons';

export const VIEWS = [
  { id: 'plane', title: 'Plane', hint: '1', words: 'roof outline tape measure' },
  { id: 'site', title: 'Site', hint: '2', words: 'trees lot map neighbours meter panel trench' },
  { id: 'scene', title: '3-D', hint: '3', words: 'model three dimensions' },
] as const;

export const SOUGHT: readonly Sought[] = [
  { name: 'Slope', reach: ['This plane', 'Slope'], words: 'pitch tilt angle' },
  { name: 'Azimuth', reach: ['This plane', 'Azimuth'], words: 'facing compass direction bearing' },
  { name: 'Eave height', reach: ['This plane', 'Eave height'], words: 'ground ladder' },
  { name: 'Eave setback', reach: ['This plane', 'Eave setback'], words: 'fire free strip' },
  { name: 'Ridge setback', reach: ['This plane', 'Ridge setback'], words: 'fire free strip' },
  { name: 'Covering', reach: ['Structure', 'Covering'], words: 'shingle tile metal roofing' },
  { name: 'Rafter spacing', reach: ['Structure', 'Spacing'], words: 'truss joist' },
  { name: 'Obstructions', reach: ['Obstructions'], words: 'vent chimney skylight pipe' },
  { name: 'Notes and photos', reach: ['Notes'], words: 'picture' },
  { name: 'Trees and neighbours', view: 'site', reach: ['Around'], words: 'shade source' },
  { name: 'Lot lines and picture', view: 'site', reach: ['Lot and picture'], words: 'map trace' },
  { name: 'Service', view: 'site', reach: ['Service'], words: 'meter panel disconnect' },
  { name: 'Horizon', view: 'site', reach: ['Horizon'], words: 'hills skyline mountain' },
].map((sought) => ({ view: 'plane', ...sought }));

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
