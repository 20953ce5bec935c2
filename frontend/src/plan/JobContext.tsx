/** The edited job: its newest state, the option in view, and the one way to change it. */
import {
  useMutation,
  useMutationState,
  useQueryClient,
  useSuspenseQuery,
} from '@tanstack/react-query';
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useState,
} from 'react';
import type { OptionAt } from '@/api/asking';
import {
  api,
  type BriefReport,
  type Edit,
  foundOf,
  type Job,
  type JobState,
  type Option,
  type OptionReport,
  ProblemError,
  type RoofPlane,
  type SurveyReport,
  type WorkedOut,
} from '@/api/client';
import { jobKey, jobQuery, jobsQuery } from '@/api/queries';
import { useNotify } from '@/ui/Notices';
import { NotWorkedOut } from './NotWorkedOut';
import { tabName } from './tab';

interface JobInView {
  state: WorkedOut;
  job: Job;
  brief: BriefReport;
  survey: SurveyReport;
  option: Option;
  /** The roof plane in view, and how to look at another. */
  plane: RoofPlane | undefined;
  showPlane: (planeId: string) => void;
  report: OptionReport;
  at: OptionAt;
  /** Whether a change waits for the link to come back. */
  waiting: boolean;
  /** Apply an edit; rejects with a ProblemError that names the field. */
  edit: (edit: Edit) => Promise<JobState>;
  /** Apply an edit and tell the person if it was refused; done when it is answered. */
  act: (edit: Edit) => Promise<void>;
  undo: () => void;
  redo: () => void;
}

const JobContext = createContext<JobInView | null>(null);

export function useJob(): JobInView {
  const found = useContext(JobContext);
  if (!found) throw new Error('useJob is used outside a job');
  return found;
}

/** Whether an edit is on its way; apart from the job, so that only who shows it is drawn anew. */
export function useSaving(): boolean {
  const { at } = useJob();
  const pending = useMutationState({
    filters: { mutationKey: ['edit', at.jobId], status: 'pending' },
  });
  return pending.length > 0;
}

type Change = Edit | 'undo' | 'redo';

function send(jobId: string, revision: number, change: Change): Promise<JobState> {
  const path = { job_id: jobId };
  if (change === 'undo' || change === 'redo') {
    const body = { from_revision: revision };
    const address = change === 'undo' ? '/api/jobs/{job_id}/undo' : '/api/jobs/{job_id}/redo';
    return foundOf(api.POST(address, { params: { path }, body }));
  }
  const body = { parent: revision, author: tabName(), edit: change };
  return foundOf(api.POST('/api/jobs/{job_id}/edits', { params: { path }, body }));
}

// A roof's link comes and goes: for two minutes a change is sent again; the server knows its twin.
const AGAIN_MS = 2000;
const TRIES = 60;

async function sentUntilAnswered(
  once: () => Promise<JobState>,
  waits: (waiting: boolean) => void,
): Promise<JobState> {
  for (let left = TRIES; ; left--) {
    try {
      const saved = await once();
      waits(false);
      return saved;
    } catch (error) {
      const lost = error instanceof ProblemError && error.code === 'network';
      waits(lost && left > 0);
      if (!lost || left === 0) throw error;
      await new Promise((go) => setTimeout(go, AGAIN_MS));
    }
  }
}

interface JobProviderProps {
  jobId: string;
  optionId: string;
  children: ReactNode;
}

export function JobProvider({ jobId, optionId, children }: JobProviderProps) {
  const client = useQueryClient();
  const notify = useNotify();
  const { data: state } = useSuspenseQuery(jobQuery(jobId));
  const [waiting, setWaiting] = useState(false);
  // One scope: edits of a tab are sent one after the other, each on the revision before it.
  const { mutateAsync } = useMutation({
    mutationKey: ['edit', jobId],
    scope: { id: `edit-${jobId}` },
    mutationFn: (change: Change) => {
      const newest = client.getQueryData<JobState>(jobKey(jobId));
      const once = () => send(jobId, (newest ?? state).revision, change);
      // A step back or forward is a look at what is there: without a link there is none.
      return typeof change === 'string' ? once() : sentUntilAnswered(once, setWaiting);
    },
    // Waiting is ours: the browser's own idea of a link knows nothing of a program on this machine.
    networkMode: 'always',
    onSuccess: (saved) => {
      client.setQueryData(jobKey(jobId), saved);
      void client.invalidateQueries({ queryKey: jobsQuery.queryKey });
    },
    onError: (error) => {
      if (!(error instanceof ProblemError) || error.code !== 'save.conflict') return;
      void client.invalidateQueries({ queryKey: jobKey(jobId) });
      const kept = error.keptJobId;
      notify({
        text: error.message,
        tone: 'warn',
        ...(kept ? { action: { label: 'Open my version', href: `/jobs/${kept}` } } : {}),
      });
    },
  });
  const act = useCallback(
    (change: Change) => {
      return mutateAsync(change).then(
        () => undefined,
        (error: unknown) => {
          if (error instanceof ProblemError && error.code === 'save.conflict') return;
          notify({ text: error instanceof Error ? error.message : String(error), tone: 'stop' });
        },
      );
    },
    [mutateAsync, notify],
  );

  const [planeId, showPlane] = useState('');
  const { planes } = state.job.survey;
  const option = state.job.options.find((o) => o.id === optionId) ?? state.job.options[0];
  const withId = (id: string | undefined) => planes.find((p) => p.id === id);
  // While nobody chose: where the work is.
  const laid = option?.arrays.find((a) => a.modules.length > 0)?.plane_id;
  const plane = withId(planeId) ?? withId(laid) ?? planes[0];
  const report = state.reports.find((r) => r.option_id === option?.id);
  const { brief, survey } = state;
  const value = useMemo<JobInView | null>(() => {
    if (!option || !report || !brief || !survey) return null;
    return {
      state: { ...state, brief, survey },
      job: state.job,
      brief,
      survey,
      option,
      plane,
      showPlane,
      report,
      at: { jobId, revision: state.revision, optionId: option.id },
      waiting,
      edit: mutateAsync,
      act,
      undo: () => void act('undo'),
      redo: () => void act('redo'),
    };
  }, [state, option, plane, report, brief, survey, jobId, waiting, mutateAsync, act]);
  useEffect(() => {
    if (!waiting) return;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', stay);
    return () => removeEventListener('beforeunload', stay);
  }, [waiting]);
  if (!value) return <NotWorkedOut state={state} act={(change) => void act(change)} />;
  return <JobContext.Provider value={value}>{children}</JobContext.Provider>;
}
