/** What the tool in hand wants next, over the drawing. */
interface ToolHintProps {
  hint: string;
  /** Where it covers least. */
  place: 'top' | 'bottom';
}

export function ToolHint({ hint, place }: ToolHintProps) {
  if (!hint) return null;
  return (
    <p
      role="status"
      className={`absolute left-3 z-20 rounded-md border border-copper bg-sheet px-2 py-1 text-sm ${place === 'top' ? 'top-2' : 'bottom-2'}`}
    >
      {hint} <span className="text-ink-2">Escape lets go.</span>
    </p>
  );
}
