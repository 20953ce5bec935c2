/** What is drawn so many pixels wide, narrower where its box is. */
import type { ReactNode } from 'react';
import { useSize } from './useSize';

interface FittedProps {
  mostPx: number;
  children: (widthPx: number) => ReactNode;
}

export function Fitted({ mostPx, children }: FittedProps) {
  const [size, measure] = useSize();
  return (
    <div ref={measure} className="max-w-full">
      {children(Math.min(mostPx, size?.widthPx || mostPx))}
    </div>
  );
}
