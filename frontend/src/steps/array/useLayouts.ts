/** The layouts of a plane as they are known: found at once, then proven, or what was asked for. */
import { useQuery } from '@tanstack/react-query';
import type { OptionAt } from '@/api/asking';
import { useSettled } from '@/api/useYear';
import {
  type Alternative,
  type Arrangement,
  alternativesQuery,
  cancelProof,
  exactlyQuery,
  proofQuery,
  squeezeQuery,
} from './queries';

/** What is listed: every kind of layout, or the best of exactly so many. */
export type Asked =
  | { kind: 'most'; squeeze: boolean }
  | { kind: 'exactly'; modules: number; arrangement: Arrangement };

export interface Layouts {
  list: Alternative[];
  pending: boolean;
  stale: boolean;
  problem: string;
  /** A proof goes on: how many kinds are settled of how many. */
  proving: { proven: number; of: number; stop: () => void } | null;
}

export function useLayouts(at: OptionAt, planeId: string, asked: Asked): Layouts {
  const settled = useSettled(at);
  const found = useQuery(alternativesQuery(settled, planeId));
  const open = found.data?.some((a) => a.count < a.at_most) ?? false;
  const proof = useQuery({
    ...proofQuery(settled, planeId),
    enabled: open && !found.isPlaceholderData && asked.kind === 'most',
  });
  const free = useQuery({
    ...squeezeQuery(settled, planeId),
    enabled: asked.kind === 'most' && asked.squeeze,
  });
  const wanted = asked.kind === 'exactly' ? asked : { modules: 1, arrangement: 'light' as const };
  const exact = useQuery({
    ...exactlyQuery(settled, planeId, wanted.modules, wanted.arrangement),
    enabled: asked.kind === 'exactly',
  });
  const behind = settled.revision !== at.revision;
  if (asked.kind === 'exactly')
    return {
      list: exact.data ?? [],
      pending: exact.isPending,
      stale: exact.isPlaceholderData || behind,
      problem: exact.error?.message ?? '',
      proving: null,
    };
  const running = proof.data?.running ?? false;
  const told = open ? (proof.data?.proof?.alternatives ?? found.data) : found.data;
  const squeezed = asked.squeeze ? (free.data ?? []) : [];
  const better = squeezed.filter((s) => !told?.some((a) => a.key === s.key));
  return {
    list: [...(told ?? []), ...better].sort((a, b) => b.count - a.count),
    pending: found.isPending || (asked.squeeze && free.isPending),
    stale: found.isPlaceholderData || behind,
    problem: found.error?.message ?? free.error?.message ?? '',
    proving:
      running && proof.data?.proof
        ? {
            proven: proof.data.proof.proven,
            of: proof.data.proof.of,
            stop: () => void cancelProof(settled, planeId),
          }
        : null,
  };
}
