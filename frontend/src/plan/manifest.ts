/** What a step of the work tells the frame: its name, its views, its keys, and its screen. */
import type { ComponentType } from 'react';

/** A way to look at a step; its key opens it. */
export interface View<Id extends string = string> {
  id: Id;
  title: string;
  hint: string;
}

export interface StepManifest {
  id: string;
  title: string;
  /** Reached by their keys and by “Find or do”; the first one is open first. */
  views?: readonly View[];
  /** What other keys do. */
  keys?: readonly (readonly [string, string])[];
  /** The screen, fetched when it is wanted; without one the step is not built yet. */
  fetch?: () => Promise<{ default: ComponentType }>;
  /** What it will decide, until it is built. */
  unbuilt?: string;
}
