/** The four states by shape as well as colour. */
export type Shape = 'circle' | 'triangle' | 'square' | 'ring';

const DRAWN = {
  circle: <circle cx="6" cy="6" r="5" fill="#1f6f63" />,
  triangle: <path d="M6 1 11.5 11 H0.5 Z" fill="#7d5200" />,
  square: <rect x="1" y="1" width="10" height="10" fill="#a8201a" />,
  ring: <circle cx="6" cy="6" r="4.5" fill="none" stroke="#6b7675" strokeWidth="1.5" />,
};

const NAME = {
  circle: 'settled',
  triangle: 'look at this',
  square: 'a Stop limit is broken',
  ring: 'not begun',
};

/** On the dark ground of the step in view the marks turn pale. */
const PALE = {
  circle: <circle cx="6" cy="6" r="5" fill="#8fd0c2" />,
  triangle: <path d="M6 1 11.5 11 H0.5 Z" fill="#e9c46a" />,
  square: <rect x="1" y="1" width="10" height="10" fill="#f3a49c" />,
  ring: <circle cx="6" cy="6" r="4.5" fill="none" stroke="#d9d4c7" strokeWidth="1.5" />,
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
