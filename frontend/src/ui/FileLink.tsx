/** A link to a file that is made when it is pressed, with the weight of a main button. */
import type { ReactNode } from 'react';

interface FileLinkProps {
  href: string;
  /** Shown in a tab of its own, not kept at once. */
  shown?: boolean;
  children: ReactNode;
}

export function FileLink({ href, shown = false, children }: FileLinkProps) {
  const where = shown ? { target: '_blank', rel: 'noreferrer' } : { download: true };
  return (
    <a
      className="inline-flex h-[27px] items-center rounded-md border border-patina bg-patina px-2.5 text-sm font-medium text-sheet"
      href={href}
      {...where}
    >
      {children}
    </a>
  );
}
