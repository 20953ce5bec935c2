/** A design on a generic DC input: what it has no year for, which is no fault of it. */
import { Empty } from '@/ui/States';

export const NO_AC = 'No year: a DC input makes no AC. Its strings are checked like any other’s.';

export const NoAc = () => (
  <Empty>{NO_AC} For a year, choose an inverter under Strings, Equipment.</Empty>
);
