/** Money: what an option costs, what it spares, when it is paid back, and which option is worth more. */

import type { Schemas } from '@/api/client';
import { moneyQuery } from '@/api/money';
import { Behind } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { NoModules } from '@/plan/NoModules';
import { useStudy } from '@/plan/useStudy';
import { useView } from '@/plan/useView';
import { Button } from '@/ui/Button';
import { Toolbar } from '@/ui/Card';
import { Failed, Waiting } from '@/ui/States';
import { ViewButtons } from '@/ui/ViewButtons';
import { BillsView } from './parts/BillsView';
import { LaterView } from './parts/LaterView';
import { MovesView } from './parts/MovesView';
import { OptionsView } from './parts/OptionsView';
import { PriceView } from './parts/PriceView';
import { SureView } from './parts/SureView';
import { YearsView } from './parts/YearsView';
import { VIEWS } from './views';

export default function MoneyStep() {
  const { report } = useJob();
  if (report.modules === 0) return <NoModules wants="the price follows the parts." />;
  return <Screen />;
}

function Screen() {
  const { at } = useJob();
  const [view, setView] = useView(VIEWS);
  const { found, behind, error, running } = useStudy(moneyQuery(at));
  return (
    <>
      <Toolbar>
        <ViewButtons views={VIEWS} view={view} onView={setView} />
      </Toolbar>
      {error ? (
        <Failed error={error} />
      ) : found ? (
        <Behind behind={behind}>
          {found.other_currency !== '' && <OtherCurrency found={found} />}
          {view === 'price' && <PriceView found={found} />}
          {view === 'bills' && <BillsView found={found} running={running} />}
          {view === 'years' && <YearsView found={found} running={running} />}
          {view === 'options' && <OptionsView found={found} />}
          {view === 'moves' && <MovesView currency={found.currency} />}
          {view === 'later' && <LaterView found={found} />}
          {view === 'sure' && <SureView currency={found.currency} />}
        </Behind>
      ) : (
        <Waiting shows="The priced list of this option, and what it is worth over the years.">
          Adding up
        </Waiting>
      )}
    </>
  );
}

/** Prices typed under another currency: nothing is converted, so a person says what holds. */
function OtherCurrency({ found }: { found: Schemas['MoneyView'] }) {
  const { act } = useJob();
  return (
    <p
      role="alert"
      className="flex flex-wrap items-center gap-2 border-b border-warn bg-warn-wash px-4 py-1 text-sm"
    >
      {found.asked}
      <Button onClick={() => void act({ kind: 'take-currency' })}>
        They are in {found.currency} now
      </Button>
    </p>
  );
}
