/** Brief: the year's need against the array, the ceilings in the target's way, and what sets both. */
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { briefAddress } from '@/api/queries';
import { useTarget } from '@/api/useYear';
import { useJob } from '@/plan/JobContext';
import { ApprovalSection } from './parts/ApprovalSection';
import { BillsSection } from './parts/BillsSection';
import { GridSection } from './parts/GridSection';
import { HouseSection } from './parts/HouseSection';
import { LoadsSection } from './parts/LoadsSection';
import { NeedPanel } from './parts/NeedPanel';
import { PlaceSection } from './parts/PlaceSection';
import { ShelfSection } from './parts/ShelfSection';
import { TargetPanel } from './parts/TargetPanel';
import { VIEWS } from './views';

const BODY = {
  place: PlaceSection,
  bills: BillsSection,
  loads: LoadsSection,
  grid: GridSection,
  approval: ApprovalSection,
  house: HouseSection,
  shelf: ShelfSection,
};

export default function BriefStep() {
  const { at, job, brief } = useJob();
  const [asked, setAsked] = useSearchParams();
  // Where it opened it stays, also once a place is found.
  const [first] = useState(job.site.place ? 'bills' : 'place');
  const section = VIEWS.find(({ id }) => id === asked.get('view'))?.id ?? first;
  const setSection = (view: string) => setAsked({ view }, { replace: true });
  const { query, behind } = useTarget(at);
  const faults = brief.bills.filter((b) => b.problem).length;
  return (
    <Tabs.Root value={section} onValueChange={setSection} className="flex min-h-0 grow flex-col">
      <div className="beside min-h-[296px] shrink-0 gap-3 border-b border-rule px-3.5 pt-2.5 pb-2">
        <NeedPanel target={query.data} />
        <TargetPanel target={query.data} behind={behind} error={query.error} />
      </div>
      <div className="flex min-h-10 shrink-0 flex-wrap items-center gap-y-1 py-1 gap-2 border-b border-rule px-3.5">
        <Tabs.List aria-label="Parts of the brief" className="flex flex-wrap gap-1">
          {VIEWS.map(({ id, title }) => (
            <Tabs.Trigger
              key={id}
              value={id}
              className="h-[27px] rounded-md border border-transparent px-2 text-sm font-medium whitespace-nowrap hover:border-rule data-[state=active]:border-ink data-[state=active]:bg-ink data-[state=active]:text-sheet"
            >
              {title}
              {id === 'bills' && faults > 0 && (
                <span className="ml-1.5 rounded-sm bg-stop px-1 text-xs text-sheet">{faults}</span>
              )}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <span className="grow" />
        <a
          className="inline-flex h-[27px] items-center rounded-md border border-patina bg-patina px-2.5 text-sm font-medium whitespace-nowrap text-sheet"
          href={briefAddress(at)}
          target="_blank"
          rel="noreferrer"
        >
          Brief (PDF)
        </a>
      </div>
      {VIEWS.map(({ id }) => {
        const Body = BODY[id];
        return (
          <Tabs.Content
            key={id}
            value={id}
            className="min-h-0 grow overflow-auto bg-sheet px-3.5 py-2.5"
          >
            <Body target={query.data} />
          </Tabs.Content>
        );
      })}
    </Tabs.Root>
  );
}
