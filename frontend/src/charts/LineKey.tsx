/** What each line of a chart is: a piece of it beside its words. */

export interface KeyedLine {
  title: string;
  colour: string;
  dash: string;
}

export function LineKey({ lines }: { lines: readonly KeyedLine[] }) {
  return (
    <ul className="flex flex-wrap gap-x-3 text-xs text-ink-2">
      {lines.map(({ title, colour, dash }) => (
        <li key={title} className="flex items-center gap-1">
          <svg width="22" height="6" aria-hidden="true">
            <line x2="22" y1="3" y2="3" stroke={colour} strokeWidth="2.5" strokeDasharray={dash} />
          </svg>
          {title}
        </li>
      ))}
    </ul>
  );
}
