/** The tools of the site plan. */
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { GEAR } from '@/plan/site/GearMark';
import { Button } from '@/ui/Button';
import { Toolbar } from '@/ui/Card';
import { Menu } from '@/ui/Menu';
import type { SiteTool } from '../siteTool';
import type { SurveyViewProps } from '../views';

interface SiteToolbarProps extends SurveyViewProps {
  plane: RoofPlane;
  tool: SiteTool;
  onTake: (tool: SiteTool) => void;
}

export function SiteToolbar({ plane, tool, onTake, views }: SiteToolbarProps) {
  const { job } = useJob();
  const pressed = (on: boolean) => ({
    'aria-pressed': on,
    weight: on ? ('pressed' as const) : ('plain' as const),
  });
  const shade = tool.kind === 'shade' ? tool.what : null;
  return (
    <Toolbar>
      <Button
        hint="T"
        {...pressed(shade === 'tree')}
        onClick={() => onTake({ kind: 'shade', what: 'tree' })}
      >
        Tree
      </Button>
      <Button
        hint="H"
        {...pressed(shade === 'house')}
        onClick={() => onTake({ kind: 'shade', what: 'house' })}
      >
        House
      </Button>
      <Menu
        label="Other shade"
        pressed={shade === 'pole' || shade === 'chimney'}
        items={[
          { label: 'Pole', run: () => onTake({ kind: 'shade', what: 'pole' }) },
          { label: 'Chimney of others', run: () => onTake({ kind: 'shade', what: 'chimney' }) },
        ]}
      >
        Other
      </Menu>
      <Button
        hint="L"
        {...pressed(tool.kind === 'lot')}
        onClick={() => onTake({ kind: 'lot', points: [] })}
      >
        Lot line
      </Button>
      <Button
        hint="J"
        disabled={job.survey.planes.length < 2}
        {...pressed(tool.kind === 'join')}
        onClick={() => onTake({ kind: 'join', first: null })}
      >
        Join
      </Button>
      <Button
        hint="A"
        title={`Place ${plane.name} by the two ends of its eave; its azimuth follows`}
        {...pressed(tool.kind === 'face')}
        onClick={() => onTake({ kind: 'face', planeId: plane.id, left: null })}
      >
        Eave
      </Button>
      <Menu
        label="Service"
        pressed={tool.kind === 'gear' || tool.kind === 'trench'}
        items={[
          ...GEAR.map(([gear, title]) => ({
            label: title,
            run: () => onTake({ kind: 'gear', what: gear }),
          })),
          ...(plane.ground
            ? [
                {
                  label: `Trench from ${plane.name} to the panel`,
                  run: () => onTake({ kind: 'trench', planeId: plane.id, points: [] }),
                },
              ]
            : []),
        ]}
      />
      {views}
    </Toolbar>
  );
}
