/** A step that wants modules where there are none: what brings them, here and now. */
import { Link } from 'react-router';
import { Button } from '@/ui/Button';
import { useJob } from './JobContext';

export function NoModules({ wants }: { wants: string }) {
  const { at, option, plane, survey, act } = useJob();
  const seen = survey.planes.find((p) => p.plane_id === plane?.id);
  const unmeasured = !seen || seen.unmeasured || seen.to_close !== '';
  return (
    <div className="m-auto flex max-w-[460px] flex-col items-start gap-3 p-6 text-base">
      <p>No module is laid yet: {wants}</p>
      {plane && (
        <span className="flex flex-wrap gap-2">
          {!unmeasured && (
            <Button
              weight="main"
              onClick={() =>
                void act({
                  kind: 'fill-plane',
                  option_id: option.id,
                  plane_id: plane.id,
                  ways: 'P',
                })
              }
            >
              Fill {plane.name} in portrait
            </Button>
          )}
          <Link
            to={`/jobs/${at.jobId}/${option.id}/${unmeasured ? 'survey' : 'array'}`}
            className="inline-flex h-[27px] items-center rounded-md border border-rule bg-sheet px-2.5 text-sm font-medium hover:border-field"
          >
            {unmeasured ? 'Measure it first' : 'Compare layouts'}
          </Link>
        </span>
      )}
    </div>
  );
}
