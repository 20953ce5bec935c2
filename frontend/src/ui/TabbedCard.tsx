/** A card of the board with a few faces, one shown at a time. */
import { Tabs } from 'radix-ui';
import type { ReactNode } from 'react';

export interface CardFace {
  id: string;
  title: string;
  /** A count or a word behind the title. */
  aside?: string;
  body: ReactNode;
}

interface TabbedCardProps {
  label: string;
  faces: CardFace[];
  value: string;
  onValueChange: (id: string) => void;
  className?: string;
}

export function TabbedCard({
  label,
  faces,
  value,
  onValueChange,
  className = '',
}: TabbedCardProps) {
  return (
    <Tabs.Root
      value={value}
      onValueChange={onValueChange}
      className={`flex flex-col rounded-lg border border-rule bg-sheet ${className}`}
    >
      <Tabs.List
        aria-label={label}
        className="flex shrink-0 flex-wrap gap-x-1 border-b border-rule px-2 pt-1"
      >
        {faces.map((face) => (
          <Tabs.Trigger
            key={face.id}
            value={face.id}
            className="-mb-px min-h-7 border-b-2 border-transparent px-2 text-sm whitespace-nowrap text-ink-2 hover:text-ink data-[state=active]:border-copper data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {face.title}
            {face.aside && <span className="ml-1 text-xs text-ink-2">{face.aside}</span>}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {faces.map((face) => (
        <Tabs.Content
          key={face.id}
          value={face.id}
          className="min-h-0 grow overflow-y-auto px-3 py-2"
          tabIndex={-1}
        >
          {face.body}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
