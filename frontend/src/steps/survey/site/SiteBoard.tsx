/** Below the site plan: planes, what stands around, lot and picture, service, horizon, notes. */
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { TabbedCard } from '@/ui/TabbedCard';
import { NotesFace } from '../parts/NotesFace';
import type { SiteTool } from '../siteTool';
import { AroundFace } from './AroundFace';
import { HorizonFace } from './HorizonFace';
import { LotFace } from './LotFace';
import { PlacesFace } from './PlacesFace';
import { ServiceFace } from './ServiceFace';

interface SiteBoardProps {
  plane: RoofPlane;
  chosen: string;
  face: string;
  onFace: (face: string) => void;
  onChoose: (kind: 'plane' | 'shade' | 'gear', id: string) => void;
  onTake: (tool: SiteTool) => void;
}

export function SiteBoard({ plane, chosen, face, onFace, onChoose, onTake }: SiteBoardProps) {
  const { job } = useJob();
  const { shade_sources, lot_lines, horizon, attachments } = job.survey;
  const count = (n: number) => (n > 0 ? { aside: String(n) } : {});
  return (
    <Board heightPx={236}>
      <TabbedCard
        label="About the site"
        value={face}
        onValueChange={onFace}
        className="grow basis-0"
        faces={[
          {
            id: 'planes',
            title: 'Planes',
            ...count(job.survey.planes.length),
            body: <PlacesFace plane={plane} onChoose={(id) => onChoose('plane', id)} />,
          },
          {
            id: 'around',
            title: 'Around',
            ...count(shade_sources.length),
            body: (
              <AroundFace
                chosenId={chosen.startsWith('shade ') ? chosen.slice(6) : ''}
                onChoose={(id) => onChoose('shade', id)}
              />
            ),
          },
          {
            id: 'lot',
            title: 'Lot and picture',
            ...count(lot_lines.length),
            body: <LotFace onTake={onTake} />,
          },
          { id: 'service', title: 'Service', body: <ServiceFace /> },
          {
            id: 'horizon',
            title: 'Horizon',
            ...count(horizon.length),
            body: <HorizonFace />,
          },
          {
            id: 'notes',
            title: 'Panel notes',
            ...count(attachments.filter((a) => a.plane_id === null).length),
            body: <NotesFace />,
          },
        ]}
      />
    </Board>
  );
}
