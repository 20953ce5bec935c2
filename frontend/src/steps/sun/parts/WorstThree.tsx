/** What moving the modules with least light would give. */
import { useQuery } from '@tanstack/react-query';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Failed } from '@/ui/States';
import { worstQuery } from '../queries';

export function WorstThree({ nameOf }: { nameOf: (id: string) => string }) {
  const { at, act } = useJob();
  const { data, error, isPlaceholderData } = useQuery(worstQuery(at));
  const follow = async () => {
    for (const edit of data?.edits ?? []) await act(edit);
  };
  return (
    <Card
      title="The worst three"
      scrolls
      className={`flex min-w-[200px] grow basis-0 flex-col ${isPlaceholderData ? 'opacity-60' : ''}`}
    >
      {error && <Failed error={error} tight />}
      {data && (
        <>
          <p className="text-sm">{data.told}</p>
          <p className="mt-1 text-xs text-ink-2">
            {data.module_ids.map(nameOf).join(', ')}; strings threaded anew, years by the hour.
          </p>
          {data.edits.length > 0 && (
            <span className="mt-auto">
              <Button onClick={() => void follow()}>Move them</Button>
            </span>
          )}
        </>
      )}
    </Card>
  );
}
