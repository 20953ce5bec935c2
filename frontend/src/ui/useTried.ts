/** Work that may be refused: why it was, in words, until it is tried again. */
import { useState } from 'react';

export function useTried(unnamed: string) {
  const [problem, setProblem] = useState('');
  /** Whether it went through. */
  const tried = async (work: () => Promise<unknown>) => {
    setProblem('');
    try {
      await work();
      return true;
    } catch (error) {
      setProblem(error instanceof Error ? error.message : unnamed);
      return false;
    }
  };
  return { tried, problem };
}
