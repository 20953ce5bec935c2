/** Where no plan strings all modules: why, and the nearest inverter on which one does. */
import { useQuery } from '@tanstack/react-query';
import { noPlanQuery } from '@/api/queries';
import { Button } from '@/ui/Button';
import { figure } from '@/units/format';
import { useJob } from './JobContext';

export function NoPlan() {
  const { at, act, report } = useJob();
  // Asked only where something about the strings is amiss: it looks through the shelf.
  const amiss =
    report.modules_strung < report.modules ||
    report.checks.some(
      ({ check }) =>
        check.step === 'strings' && check.verdict === 'broken' && check.kind !== 'note',
    );
  const { data } = useQuery({ ...noPlanQuery(at), enabled: amiss });
  if (!amiss || !data?.why) return null;
  const { nearest, edit } = data;
  return (
    <div role="alert" className="my-1 rounded-md border border-stop bg-stop-wash p-2 text-sm">
      <p>No plan strings all modules. {data.why}</p>
      {nearest && edit ? (
        <p className="mt-1">
          Nearest that does: {nearest.name}, {figure(nearest.p_ac_w / 1000, 1)} kW ({nearest.told}).{' '}
          <Button onClick={() => void act(edit)}>Use it</Button>
        </p>
      ) : (
        <p className="mt-1">No inverter of the shelf does. Change the count, or add a datasheet.</p>
      )}
    </div>
  );
}
