/** Proving: is it normal now, commissioning in its safe order, the search for a fault, practice. */
import { useView } from '@/plan/useView';
import { Toolbar } from '@/ui/Card';
import { ViewButtons } from '@/ui/ViewButtons';
import { CommissioningView } from './parts/CommissioningView';
import { FaultView } from './parts/FaultView';
import { MomentStepView } from './parts/MomentView';
import { OutputView } from './parts/OutputView';
import { PracticeView } from './parts/PracticeView';
import { RecordsStepView } from './parts/RecordsView';
import { VIEWS } from './views';

export default function ProvingStep() {
  const [view, setView] = useView(VIEWS);
  return (
    <>
      <Toolbar>
        <ViewButtons views={VIEWS} view={view} onView={setView} />
      </Toolbar>
      <p className="border-b border-stop bg-stop-wash px-3.5 py-1 text-xs">
        <b>A module in light is live and cannot be switched off.</b> Never open a connector under
        load. Prove dead: test the tester, test, test the tester. Stay tied off; come down in wind
        or storm. Only a qualified person opens the panel.
      </p>
      {view === 'moment' && <MomentStepView />}
      {view === 'records' && <RecordsStepView />}
      {view === 'tests' && <CommissioningView />}
      {view === 'fault' && <FaultView />}
      {view === 'output' && <OutputView />}
      {view === 'yard' && <PracticeView />}
    </>
  );
}
