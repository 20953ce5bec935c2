/** A job: top bar, the run of steps, the work surface, the Tally. */
import { QueryErrorResetBoundary } from '@tanstack/react-query';
import { Component, lazy, type ReactNode, Suspense, useEffect, useRef, useState } from 'react';
import { Link, Navigate, useLocation, useNavigate, useParams } from 'react-router';
import { JobProvider, useJob } from '@/plan/JobContext';
import { Tally } from '@/tally/Tally';
import { Waiting } from '@/ui/States';
import { useKeys } from '@/ui/useKeys';
import { clock, day } from '@/units/format';
import { FindOrDo } from './FindOrDo';
import { KeyMapPanel } from './KeyMapPanel';
import { keepPlace, lastPlace } from './lastPlace';
import { NextLine, nextLineOn, setNextLine } from './NextLine';
import { Run } from './Run';
import { STEPS, stepOf } from './steps';
import { TopBar } from './TopBar';
import { usePaper } from './usePaper';
import './print.css';

const SCREENS = new Map(
  STEPS.flatMap((step) => (step.fetch ? [[step.id, lazy(step.fetch)] as const] : [])),
);

export function JobPage() {
  const { jobId = '', optionId, stepId } = useParams();
  // The step's script is fetched beside the job, not after it.
  void stepOf(stepId)?.fetch?.();
  // An option that is asked for by name is not one that was left.
  if (!optionId) return <Navigate to={lastPlace(jobId)} replace />;
  if (!stepId) return <Navigate to={`/jobs/${jobId}/${optionId}/brief`} replace />;
  return (
    <QueryErrorResetBoundary>
      {({ reset }) => (
        <Failed key={jobId} onRetry={reset}>
          <Suspense fallback={<Waiting>Opening the job</Waiting>}>
            <JobProvider jobId={jobId} optionId={optionId}>
              <JobFrame stepId={stepId} />
            </JobProvider>
          </Suspense>
        </Failed>
      )}
    </QueryErrorResetBoundary>
  );
}

function JobFrame({ stepId }: { stepId: string }) {
  const { at, option, undo, redo, state } = useJob();
  usePaper();
  const [finding, setFinding] = useState(false);
  const [keysShown, setKeysShown] = useState(false);
  const [tallyOpen, setTallyOpen] = useState(false);
  const [checkOpen, setCheckOpen] = useState('');
  const [nextShown, setNextShown] = useState(nextLineOn);
  const showNext = (on: boolean) => {
    setNextLine(on);
    setNextShown(on);
  };
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  // Whoever goes on to another step by key or by ear finds the focus there.
  const before = useRef(stepId);
  useEffect(() => {
    if (before.current === stepId) return;
    before.current = stepId;
    document.getElementById('work')?.focus({ preventScroll: true });
  }, [stepId]);
  useEffect(() => keepPlace(at.jobId, pathname + search), [at.jobId, pathname, search]);
  useKeys({
    '/': () => setFinding(true),
    '?': () => setKeysShown(true),
    'mod+z': () => state.undo && undo(),
    'mod+shift+z': () => state.redo && redo(),
  });
  const step = stepOf(stepId);
  if (!step) return <Navigate to={`/jobs/${at.jobId}/${option.id}/brief`} replace />;
  const View = SCREENS.get(step.id);
  return (
    <div id="frame" className="flex h-full min-w-0 flex-col">
      <button
        type="button"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-ink focus:px-3 focus:py-2 focus:text-sheet"
        onClick={() => document.getElementById('work')?.focus()}
      >
        Skip to {step.title}
      </button>
      <p className="on-paper">
        <b>{state.job.name}</b>, option {option.id.toUpperCase()} ({option.name}), {step.title}.
        Revision {state.revision}, {day(state.saved_at)} {clock(state.saved_at)}.
      </p>
      <TopBar
        stepId={stepId}
        tallyOpen={tallyOpen}
        onTally={() => setTallyOpen(!tallyOpen)}
        onFind={() => setFinding(true)}
        onKeys={() => setKeysShown(true)}
      />
      <div className="flex min-h-0 grow max-md:flex-col">
        <Run current={stepId} />
        <main
          id="work"
          data-at={pathname + search}
          tabIndex={-1}
          aria-label={step.title}
          className="flex min-w-0 grow flex-col relative overflow-auto max-md:min-h-0"
        >
          <h1 className="sr-only">
            {step.title} of {state.job.name}
          </h1>
          {nextShown && <NextLine stepId={step.id} onSwitchOff={() => showNext(false)} />}
          <Suspense fallback={<Waiting>Opening {step.title}</Waiting>}>
            {View ? (
              <View key={`${at.jobId} ${option.id}`} />
            ) : (
              <Unbuilt title={step.title} sentence={step.unbuilt ?? ''} />
            )}
          </Suspense>
        </main>
        <Tally
          drawerOpen={tallyOpen}
          stepId={stepId}
          checkOpen={checkOpen}
          onCheck={setCheckOpen}
        />
      </div>
      <FindOrDo
        open={finding}
        onOpenChange={setFinding}
        going={{
          stepId,
          visit: (address) => void navigate(address),
          openCheck: (key) => {
            setTallyOpen(true);
            setCheckOpen(key);
          },
        }}
      />
      <KeyMapPanel
        stepId={stepId}
        open={keysShown}
        onOpenChange={setKeysShown}
        nextShown={nextShown}
        onNextShown={showNext}
      />
    </div>
  );
}

function Unbuilt({ title, sentence }: { title: string; sentence: string }) {
  return (
    <div className="m-auto max-w-[440px] p-6">
      <h2 className="mb-2 text-lg font-semibold">{title}</h2>
      <p className="text-base text-ink-2">{sentence}</p>
    </div>
  );
}

/** What is shown when a job does not open: what happened and the next move. */
class Failed extends Component<{ children: ReactNode; onRetry: () => void }, { error?: Error }> {
  override state: { error?: Error } = {};
  static getDerivedStateFromError(error: Error) {
    return { error };
  }
  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <div className="m-auto max-w-[460px] p-10" role="alert">
        <h1 className="mb-2 text-lg font-semibold">This job did not open</h1>
        <p className="mb-4 text-base">{error.message}</p>
        <div className="flex gap-4 text-sm font-medium">
          <button
            type="button"
            className="underline"
            onClick={() => {
              this.props.onRetry();
              this.setState({});
            }}
          >
            Try again
          </button>
          <Link className="underline" to="/">
            All jobs
          </Link>
        </div>
      </div>
    );
  }
}
