/** Short messages at the foot of the screen; each stays long enough to read and act on. */
import { Toast } from 'radix-ui';
import { createContext, type ReactNode, useCallback, useContext, useState } from 'react';

export interface Notice {
  text: string;
  tone: 'plain' | 'warn' | 'stop';
  action?: { label: string; href?: string; run?: () => void };
}

const NoticeContext = createContext<(notice: Notice) => void>(() => undefined);
export const useNotify = () => useContext(NoticeContext);

const TONE = {
  plain: 'border-rule bg-sheet text-ink',
  warn: 'border-warn bg-warn-wash text-ink',
  stop: 'border-stop bg-stop-wash text-ink',
};

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<(Notice & { id: number })[]>([]);
  const notify = useCallback((notice: Notice) => {
    setNotices((old) => [...old.slice(-2), { ...notice, id: (old.at(-1)?.id ?? 0) + 1 }]);
  }, []);
  const drop = (id: number) => setNotices((old) => old.filter((n) => n.id !== id));
  return (
    <NoticeContext.Provider value={notify}>
      <Toast.Provider duration={12000} swipeDirection="down">
        {children}
        {notices.map((notice) => (
          <Toast.Root
            key={notice.id}
            onOpenChange={(open) => !open && drop(notice.id)}
            className={`flex items-start gap-3 rounded-lg border p-3 text-sm ${TONE[notice.tone]}`}
          >
            <Toast.Description className="grow">{notice.text}</Toast.Description>
            {notice.action && (
              <Toast.Action altText={notice.action.label} asChild>
                {notice.action.href ? (
                  <a
                    className="font-semibold whitespace-nowrap underline"
                    href={notice.action.href}
                  >
                    {notice.action.label}
                  </a>
                ) : (
                  <button
                    type="button"
                    className="font-semibold whitespace-nowrap underline"
                    onClick={notice.action.run}
                  >
                    {notice.action.label}
                  </button>
                )}
              </Toast.Action>
            )}
            <Toast.Close aria-label="Close message" className="px-1 font-semibold">
              ×
            </Toast.Close>
          </Toast.Root>
        ))}
        <Toast.Viewport className="fixed bottom-4 left-[134px] z-50 flex w-[480px] max-w-[90vw] flex-col gap-2" />
      </Toast.Provider>
    </NoticeContext.Provider>
  );
}
