/** The four states by shape as well as colour. */
export type Shape = 'circle' | 'triangle' | 'square' | 'ring';

const DRAWN = {
  circle: <circle cx="6" cy="6" r="5" fill="var(--color-patina)" />,
  triangle: <path d="M6 1 11.5 11 H0.5 Z" fill="var(--color-warn)" />,
  square: <rect x="1" y="1" width="10" height="10" fill="var(--color-stop)" />,
  ring: <circle cx="6" cy="6" r="4.5" fill="none" stroke="var(--color-ink-3)" strokeWidth="1.5" />,
};

const NAME = {
  circle: 'settled',
  triangle: 'look at this',
  square: 'a Stop limit is broken',
  ring: 'not begun',
};

/** On the dark ground of the step in view the marks turn pale. */
const PALE = {
  circle: <circle cx="6" cy="6" r="5" fill="var(--color-patina-pale)" />,
  triangle: <path d="M6 1 11.5 11 H0.5 Z" fill="var(--color-straw)" />,
  square: <rect x="1" y="1" width="10" height="10" fill="var(--color-stop-pale)" />,
  ring: <circle cx="6" cy="6" r="4.5" fill="none" stroke="var(--color-rule)" strokeWidth="1.5" />,
};

export function Mark({ shape, pale = false }: { shape: Shape; pale?: boolean }) {
  return (
    <svg
      width="12"
      height="12"
      viewBox="0 0 12 12"
      role="img"
      aria-label={NAME[shape]}
      className="shrink-0"
    >
      {(pale ? PALE : DRAWN)[shape]}
    </svg>
  );
}
