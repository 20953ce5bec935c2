/** What a step of the work tells the frame: its name, its views, its keys, its fields, its screen. */
import type { ComponentType } from 'react';

/** A way to look at a step; its key, where it has one, opens it. */
export interface View<Id extends string = string> {
  id: Id;
  title: string;
  hint?: string;
  /** Words people look for it by, besides its title. */
  words?: string;
}

/** A field, a list or a choice that “Find or do” goes to by the words people use. */
export interface Sought {
  name: string;
  words?: string;
  /** The view it stands in; the first one where none is said. */
  view?: string;
  /** Names of what is pressed on the way, then of what is wanted; its own name where none is said. */
  reach?: readonly string[];
}

export interface StepManifest {
  id: string;
  title: string;
  /** Words people look for the step by. */
  words?: string;
  /** Reached by their keys and by “Find or do”; the first one is open first. */
  views?: readonly View[];
  sought?: readonly Sought[];
  /** What other keys do. */
  keys?: readonly (readonly [string, string])[];
  /** The screen, fetched when it is wanted; without one the step is not built yet. */
  fetch?: () => Promise<{ default: ComponentType }>;
  /** What it will decide, until it is built. */
  unbuilt?: string;
}
