/** All that “Find or do” can go to or do in the job as it is. */
import { briefAddress, jobFileAddress, sheetAddress } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import type { StepManifest } from '@/plan/manifest';
import type { Findable } from './matching';
import { reach } from './reach';
import { STEPS } from './steps';

export interface Going {
  stepId: string;
  /** To another place of the app. */
  visit: (address: string) => void;
  /** To a check in the Tally, opened. */
  openCheck: (key: string) => void;
}

type Go = (step: string, view?: string, names?: readonly string[]) => void;

export function useFindables({ stepId, visit, openCheck }: Going): Findable[] {
  const inView = useJob();
  const { at, option, report, showPlane } = inView;
  const go: Go = (step, view, names = []) => {
    const address = `/jobs/${at.jobId}/${option.id}/${step}${view ? `?view=${view}` : ''}`;
    visit(address);
    if (names.length > 0) reach(address, names);
  };
  const planeNamed = (id: string) => inView.job.survey.planes.find((p) => p.id === id)?.name ?? id;
  return [
    ...STEPS.map(
      (step): Findable => ({
        kind: 'step',
        name: `Go to ${step.title}`,
        words: step.words ?? '',
        run: () => go(step.id),
      }),
    ),
    ...STEPS.flatMap((step) => [...soughtOf(step, go), ...viewsOf(step, go)]),
    ...inView.job.options.map(
      (o): Findable => ({
        kind: 'option',
        name: `Option ${o.id.toUpperCase()}: ${o.name}`,
        run: () => visit(`/jobs/${at.jobId}/${o.id}/${stepId}`),
      }),
    ),
    ...inView.job.survey.planes.flatMap((plane): Findable[] => [
      { kind: 'plane', name: `Look at ${plane.name}`, run: () => showPlane(plane.id) },
      ...plane.obstructions.map(
        (o): Findable => ({
          kind: 'obstruction',
          name: `${o.name} on ${plane.name}`,
          words: o.kind,
          run: () => {
            showPlane(plane.id);
            go('survey', 'plane', [`${o.name}, `]);
          },
        }),
      ),
    ]),
    ...inView.job.survey.shade_sources.map(
      (source): Findable => ({
        kind: 'shade source',
        name: source.name,
        words: `${source.kind} shade around`,
        run: () => go('survey', 'site', [source.name]),
      }),
    ),
    ...report.checks.map(
      ({ key, check }): Findable => ({
        kind: 'check',
        name: `${check.title} ${check.subject}`.trim(),
        words: `limit ${check.rule_id.replaceAll(/[.-]/g, ' ')}`,
        run: () => openCheck(key),
      }),
    ),
    ...option.arrays.flatMap((array) =>
      array.modules.map(
        (_, i): Findable => ({
          kind: 'module',
          name: `Module ${i + 1} on ${planeNamed(array.plane_id)}`,
          run: () => {
            showPlane(array.plane_id);
            go('array', undefined, [`Module ${i + 1}`]);
          },
        }),
      ),
    ),
    ...option.strings.map(
      ({ tag }): Findable => ({
        kind: 'string',
        name: `String ${tag}`,
        run: () => go('strings', 'wiring', [`String ${tag}`]),
      }),
    ),
    ...deedsOf(inView),
  ];
}

const viewsOf = (step: StepManifest, go: Go): Findable[] =>
  (step.views ?? []).map((view) => ({
    kind: 'view',
    name: `Go to ${step.title}, ${view.title}`,
    words: view.words ?? '',
    run: () => go(step.id, view.id),
  }));

const soughtOf = (step: StepManifest, go: Go): Findable[] =>
  (step.sought ?? []).map((sought) => ({
    kind: `in ${step.title}`,
    name: sought.name,
    words: sought.words ?? '',
    run: () => go(step.id, sought.view, sought.reach ?? [sought.name]),
  }));

/** What is done at once. */
function deedsOf(inView: ReturnType<typeof useJob>): Findable[] {
  const { at, option, plane, state, act, undo, redo } = inView;
  const deed = (name: string, words: string, run: () => unknown): Findable => ({
    kind: 'deed',
    name,
    words,
    run: () => void run(),
  });
  const own = { option_id: option.id };
  const deeds: Findable[] = [];
  if (state.undo) deeds.push(deed(`Undo: ${state.undo}`, 'take back', undo));
  if (state.redo) deeds.push(deed('Redo', 'again', redo));
  if (plane) {
    for (const [ways, way] of [
      ['P', 'portrait'],
      ['L', 'landscape'],
      ['PL', 'mixed rows'],
    ] as const)
      deeds.push(
        deed(`Fill ${plane.name} in ${way}`, 'lay modules out', () =>
          act({ kind: 'fill-plane', ...own, plane_id: plane.id, ways }),
        ),
      );
    deeds.push(
      deed(`Derive the other side of ${plane.name}`, 'mirror back gable', () =>
        act({ kind: 'add-other-side', plane_id: plane.id }),
      ),
      deed('Add a plane', 'new roof', () => act({ kind: 'add-plane', shape: 'gable' })),
    );
  }
  deeds.push(
    deed('Let the planner choose string lengths', 'automatic wire', () =>
      act({ kind: 'wish-series-length', ...own, modules_in_series: null }),
    ),
    deed('Copy this option', 'new duplicate variant', () =>
      act({ kind: 'copy-option', ...own, name: `copy of ${option.id.toUpperCase()}` }),
    ),
    deed('Remove this option', 'delete', () => act({ kind: 'remove-option', ...own })),
    deed('Work in feet and inches', 'units imperial', () => act({ kind: 'set-unit', unit: 'ft' })),
    deed('Work in metres', 'units metric meters', () => act({ kind: 'set-unit', unit: 'm' })),
    deed('Print what is on the screen', 'paper', () => window.print()),
    deed('Download the sheet (PDF)', 'print paper export', () =>
      window.open(sheetAddress(at), '_blank'),
    ),
    deed('Download the brief (PDF)', 'print paper export', () =>
      window.open(briefAddress(at), '_blank'),
    ),
    deed('Download the job file', 'export save backup', () =>
      window.open(jobFileAddress(at.jobId), '_blank'),
    ),
  );
  return deeds;
}
