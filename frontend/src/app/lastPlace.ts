/** Where a job was left: the step and view that open when it is opened again. */

const keyOf = (jobId: string) => `ridge-tally.left.${jobId}`;

export const keepPlace = (jobId: string, address: string) =>
  localStorage.setItem(keyOf(jobId), address);

/** The address it was left at, or its brief. */
export function lastPlace(jobId: string): string {
  const kept = localStorage.getItem(keyOf(jobId)) ?? '';
  return kept.startsWith(`/jobs/${jobId}/`) ? kept : `/jobs/${jobId}/a/brief`;
}
