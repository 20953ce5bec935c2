/** A file on its way to the program: whether it is being read, and why it was refused. */
import { useState } from 'react';

export function useFileRead<T>(send: (file: File) => Promise<T>, taken: (answer: T) => unknown) {
  const [problem, setProblem] = useState('');
  const [reading, setReading] = useState(false);
  const read = async (file: File) => {
    setReading(true);
    setProblem('');
    try {
      await taken(await send(file));
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setReading(false);
    }
  };
  return { read: (file: File) => void read(file), reading, problem };
}
