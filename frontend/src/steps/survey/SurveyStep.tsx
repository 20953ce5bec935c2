/** Survey: the planes as taped, the site as planned, and both as they stand. */
import { useJob } from '@/plan/JobContext';
import { planeSurveyOf } from '@/plan/scene';
import { useView } from '@/plan/useView';
import { Empty } from '@/ui/States';
import { PlaneView } from './PlaneView';
import { SceneView } from './SceneView';
import { SiteView } from './SiteView';
import { VIEWS, ViewSwitch } from './views';

export default function SurveyStep() {
  const { state, plane } = useJob();
  const [view, setView] = useView(VIEWS);
  const seen = plane && planeSurveyOf(state, plane.id);
  if (!plane || !seen) return <Empty>This job has no roof plane.</Empty>;
  const views = <ViewSwitch view={view} onView={setView} />;
  if (view === 'site') return <SiteView plane={plane} views={views} />;
  if (view === 'scene') return <SceneView plane={plane} views={views} />;
  return <PlaneView key={plane.id} plane={plane} seen={seen} views={views} />;
}
