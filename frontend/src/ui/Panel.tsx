/** A dialog over the page: title, body, closed by Escape or the cross. */
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface PanelProps {
  title: string;
  description: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  /** Whether the focus does not go back to what opened it. */
  keepsFocus?: () => boolean;
  children: ReactNode;
}

export function Panel({
  title,
  description,
  open,
  onOpenChange,
  keepsFocus = () => false,
  children,
}: PanelProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          onCloseAutoFocus={(event) => keepsFocus() && event.preventDefault()}
          className="fixed top-[12vh] left-1/2 z-50 max-h-[76vh] w-[520px] max-w-[94vw] -translate-x-1/2 overflow-auto rounded-lg border border-field bg-sheet p-4"
        >
          <div className="mb-2 flex items-baseline justify-between gap-4">
            <Dialog.Title className="text-lg font-semibold">{title}</Dialog.Title>
            <Dialog.Close aria-label="Close" className="min-h-6 min-w-6 text-lg leading-none">
              ×
            </Dialog.Close>
          </div>
          <Dialog.Description className="mb-3 text-sm text-ink-2">{description}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
