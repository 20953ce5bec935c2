/** A study that goes on beside the page: what stands so far, or why there is nothing yet. */
import type { ReactNode } from 'react';
import { Behind } from '@/plan/Behind';
import type { StudyInView } from '@/plan/useStudy';
import { Failed, Waiting } from '@/ui/States';

interface StudyProps<T> {
  study: StudyInView<T>;
  waiting: string;
  /** What will stand here. */
  coming: string;
  children: (found: T, running: boolean) => ReactNode;
}

export function Study<T>({ study, waiting, coming, children }: StudyProps<T>) {
  const { found, behind, running, error } = study;
  if (error) return <Failed error={error} />;
  if (!found) return <Waiting shows={coming}>{waiting}</Waiting>;
  return <Behind behind={behind}>{children(found, running && !behind)}</Behind>;
}
