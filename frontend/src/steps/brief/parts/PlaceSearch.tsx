/** The shipped list of places: type a few letters, take one. */
import { useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, useEffect, useId, useState } from 'react';
import { useJob } from '@/plan/JobContext';
import { useRested } from '@/ui/useRested';
import { figure } from '@/units/format';
import { placesQuery } from '../queries';

export function PlaceSearch() {
  const { act } = useJob();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const listId = useId();
  // Enter may come before the towns do: then the first of them is taken as it comes.
  const [entered, setEntered] = useState(false);
  const rested = useRested(typed);
  const asked = entered ? typed : rested;
  const query = useQuery(placesQuery(asked));
  const places = query.data ?? [];
  const here = asked === typed && query.data !== undefined && !query.isPlaceholderData;
  const open = typed.trim().length > 1;
  const take = (index: number) => {
    const place = places[index];
    if (!place) return;
    act({
      kind: 'pick-place',
      place: place.title,
      latitude_deg: place.latitude_deg,
      longitude_deg: place.longitude_deg,
    });
    setTyped('');
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: taken once, when they come
  useEffect(() => {
    if (!entered || !here) return;
    setEntered(false);
    take(at);
  }, [entered, here]);
  const keys = (event: KeyboardEvent) => {
    event.stopPropagation();
    const way = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (way) {
      event.preventDefault();
      setAt((at + way + places.length) % Math.max(1, places.length));
    }
    if (event.key === 'Enter' && open) setEntered(true);
    if (event.key === 'Escape') setTyped('');
  };
  return (
    <div className="relative">
      <input
        role="combobox"
        aria-label="Find a place"
        aria-expanded={open}
        aria-controls={listId}
        aria-activedescendant={open && places[at] ? `${listId}-${at}` : undefined}
        value={typed}
        placeholder="Find a town, or type below"
        autoComplete="off"
        className="h-[26px] w-full rounded-md border border-field bg-sheet px-2 text-sm"
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
          setEntered(false);
        }}
        onBlur={() => setTyped('')}
        onKeyDown={keys}
      />
      {open && (
        <div
          role="listbox"
          id={listId}
          aria-label="Places found"
          aria-busy={!here}
          className="absolute inset-x-0 top-full z-30 mt-1 max-h-[220px] overflow-auto rounded-md border border-field bg-sheet py-1 text-sm"
        >
          {places.map((place, index) => (
            <div
              key={`${place.title} ${place.latitude_deg}`}
              id={`${listId}-${index}`}
              role="option"
              tabIndex={-1}
              aria-selected={index === at}
              className={`flex min-h-6 cursor-pointer items-center justify-between gap-2 px-2 ${index === at ? 'bg-patina-wash' : ''}`}
              onPointerDown={(event) => {
                event.preventDefault();
                take(index);
              }}
            >
              <span className="truncate">{place.title}</span>
              <span className="shrink-0 font-figure text-xs text-ink-2">
                {figure(place.latitude_deg, 1)}, {figure(place.longitude_deg, 1)}
              </span>
            </div>
          ))}
          {!here && places.length === 0 && (
            <p className="px-2 py-1 text-xs text-ink-2">Looking through the towns</p>
          )}
          {here && places.length === 0 && (
            <p className="px-2 py-1 text-xs text-ink-2">
              No town of 15 000 people so named: type latitude and longitude below.
            </p>
          )}
        </div>
      )}
    </div>
  );
}
