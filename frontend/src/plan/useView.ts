/** Which view of a step is open: it stands in the address, so that a link or “Find or do” opens it. */
import { useSearchParams } from 'react-router';
import { useKeys } from '@/ui/useKeys';
import type { View } from './manifest';

export function useView<Id extends string>(
  views: readonly View<Id>[],
): readonly [Id, (view: Id) => void] {
  const [asked, setAsked] = useSearchParams();
  const first = views[0]?.id as Id;
  const view = views.find(({ id }) => id === asked.get('view'))?.id ?? first;
  const show = (id: Id) => setAsked(id === first ? {} : { view: id }, { replace: true });
  useKeys(
    Object.fromEntries(views.flatMap(({ id, hint }) => (hint ? [[hint, () => show(id)]] : []))),
  );
  return [view, show];
}
