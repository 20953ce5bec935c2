/** Beside the trackers while no string is looked at: design temperatures, and home runs. */
import { useState } from 'react';
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TabbedCard } from '@/ui/TabbedCard';
import { HomeRunsTold } from './HomeRunsTold';
import { Temperatures } from './Temperatures';

export function DesignCard({ plane, onAddBox }: { plane: RoofPlane; onAddBox: () => void }) {
  const { report } = useJob();
  const [face, setFace] = useState('temperatures');
  const boxes = report.boxes.length;
  return (
    <TabbedCard
      label="What strings are designed on"
      value={face}
      onValueChange={setFace}
      className="w-[266px] shrink-0"
      faces={[
        { id: 'temperatures', title: 'Temperatures', body: <Temperatures /> },
        {
          id: 'home-runs',
          title: 'Home runs',
          ...(boxes > 0 ? { aside: `${boxes}` } : {}),
          body: <HomeRunsTold plane={plane} onAdd={onAddBox} />,
        },
      ]}
    />
  );
}
