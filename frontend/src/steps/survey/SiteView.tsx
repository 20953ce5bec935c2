/** The site plan: planes at their places, what stands around them, lot lines, the service. */
import { useRef, useState } from 'react';
import type { RoofPlane } from '@/api/client';
import { toScreen } from '@/drawing/camera';
import { At, Pane } from '@/drawing/Pane';
import { ToolHint } from '@/drawing/ToolHint';
import { useDrag } from '@/drawing/useDrag';
import { HELD_LOOK, useHold } from '@/drawing/useHold';
import { useJob } from '@/plan/JobContext';
import type { PlaneSurvey } from '@/plan/scene';
import { GEAR, GearMark } from '@/plan/site/GearMark';
import { PlaneLabel, PlaneOnSite } from '@/plan/site/PlaneOnSite';
import { ShadeMark, shadeWords } from '@/plan/site/ShadeMark';
import { LotLine, NorthAndScale, TracePicture, Trench } from '@/plan/site/SiteGround';
import { extentOf, pictureAt, pointOf, siteOf } from '@/plan/site/siteFrame';
import { TypedField } from '@/ui/TypedField';
import { useKeys } from '@/ui/useKeys';
import { echoOf, formatLength } from '@/units/length';
import { DrawnPoints } from './parts/DrawnPoints';
import { SiteBoard } from './site/SiteBoard';
import { SiteEdges } from './site/SiteEdges';
import { SiteToolbar } from './site/SiteToolbar';
import {
  clickedSite,
  LOOK,
  rounded,
  type SiteClick,
  type SitePoint,
  type SiteTool,
  siteHint,
} from './siteTool';
import type { SurveyViewProps } from './views';

interface SiteViewProps extends SurveyViewProps {
  plane: RoofPlane;
}

/** What is chosen is named by its kind and its id: a tree, a plane, a piece of gear. */
const nameOf = (kind: 'plane' | 'shade' | 'gear', id: string) => `${kind} ${id}`;

export function SiteView({ plane, views }: SiteViewProps) {
  const { state, job, survey, act, edit, showPlane, report } = useJob();
  const [tool, setTool] = useState<SiteTool>(LOOK);
  const [hover, setHover] = useState<SitePoint | null>(null);
  const [scale, setScale] = useState<[SitePoint, SitePoint] | null>(null);
  const [chosen, setChosen] = useState('');
  const [face, setFace] = useState('planes');
  const { trace, lot_lines, service, shade_sources } = job.survey;

  const take = (next: SiteTool) => {
    setTool(next.kind === tool.kind && JSON.stringify(next) === JSON.stringify(tool) ? LOOK : next);
    setScale(null);
  };
  const click = (what: SiteClick) => {
    if (tool.kind === 'look') return setChosen('');
    const outcome = clickedSite(tool, what);
    setTool(outcome.tool);
    if (outcome.edit) act(outcome.edit);
    if (outcome.scale) setScale(outcome.scale);
    if (tool.kind === 'shade' && outcome.edit) setFace('around');
  };
  const choose = (kind: 'plane' | 'shade' | 'gear', id: string) => {
    setChosen(nameOf(kind, id));
    if (kind === 'plane') showPlane(id);
    setFace({ plane: 'planes', shade: 'around', gear: 'service' }[kind]);
  };

  const placeOf = (name: string): SitePoint | null => {
    const [kind, id] = name.split(' ');
    if (kind === 'plane') return job.survey.planes.find((p) => p.id === id)?.at ?? null;
    if (kind === 'shade') return survey.shade.find((s) => s.id === id)?.at ?? null;
    return GEAR.some(([gear]) => gear === id) ? service[id as (typeof GEAR)[number][0]] : null;
  };
  const moveTo = (name: string, east: number, north: number) => {
    const [kind, id = ''] = name.split(' ');
    const at = rounded({ east_m: east, north_m: north });
    if (kind === 'plane') return act({ kind: 'move-plane', plane_id: id, ...at });
    if (kind === 'shade') return act({ kind: 'move-shade', shade_id: id, at });
    return act({ kind: 'place-gear', gear: id as (typeof GEAR)[number][0], at });
  };
  const moveBy = (name: string, eastM: number, northM: number) => {
    const at = placeOf(name);
    return at ? moveTo(name, at.east_m + eastM, at.north_m + northM) : Promise.resolve();
  };
  const scaleNow = useRef(1);
  const drag = useDrag((name, dxPx, dyPx) =>
    moveBy(name, dxPx / scaleNow.current, -dyPx / scaleNow.current),
  );
  const { hold, told } = useHold((name, { dxM, dyM }) => void moveBy(name, dxM, dyM));
  const grip = (kind: 'plane' | 'shade' | 'gear', id: string, label: string) => {
    const name = nameOf(kind, id);
    return {
      role: 'button',
      'data-stop': '',
      tabIndex: -1,
      'aria-label': told(name, label),
      'aria-pressed': chosen === name,
      className: `outline-none [&:focus-visible>*]:stroke-copper ${HELD_LOOK}`,
      style: { cursor: tool.kind === 'look' ? 'grab' : 'crosshair' },
      onFocus: () => tool.kind === 'look' && choose(kind, id),
      ...(tool.kind === 'look'
        ? { ...drag(name), ...hold(name) }
        : { pointerEvents: 'none' as const }),
    };
  };
  const remove = () => {
    const [kind, id = ''] = chosen.split(' ');
    if (kind === 'shade') act({ kind: 'remove-shade', shade_id: id });
    if (kind === 'gear')
      act({ kind: 'place-gear', gear: id as (typeof GEAR)[number][0], at: null });
    setChosen('');
  };
  const finish = () => click({ on: 'done' });
  const letGo = () => {
    take(LOOK);
    if (tool.kind === 'look') setChosen('');
  };
  useKeys({
    t: () => take({ kind: 'shade', what: 'tree' }),
    h: () => take({ kind: 'shade', what: 'house' }),
    l: () => take({ kind: 'lot', points: [] }),
    j: () => take({ kind: 'join', first: null }),
    a: () => take({ kind: 'face', planeId: plane.id, left: null }),
    Enter: finish,
    Escape: letGo,
    Delete: remove,
    Backspace: remove,
  });

  const trenchTold = (planeId: string, lengthM: number) => {
    const depth = job.survey.planes.find((p) => p.id === planeId)?.ground?.trench_depth;
    const deep = depth ? `, ${formatLength(depth.value_m, job.unit)} deep` : '';
    return `trench ${formatLength(lengthM, job.unit)}${deep}`;
  };

  const hint = siteHint(tool);
  const points = tool.kind === 'lot' || tool.kind === 'trench' ? tool.points : [];
  const from =
    tool.kind === 'face' && tool.left
      ? [tool.left]
      : tool.kind === 'scale' && tool.first
        ? [tool.first]
        : points;
  return (
    <>
      <SiteToolbar plane={plane} tool={tool} onTake={take} views={views} />
      <Pane
        points={extentOf(state)}
        padPx={{ left: 44, right: 60, top: 40, bottom: 44 }}
        label="Site plan, to scale, north up"
        zoomable
        cursor={tool.kind === 'look' ? 'default' : 'crosshair'}
        onSpot={(spot) => click({ on: 'spot', at: siteOf(spot) })}
        onHover={from.length > 0 ? (spot) => setHover(siteOf(spot)) : undefined}
        overlay={({ camera }) => (
          <>
            {scale && trace && (
              <At {...toScreen(camera, pointOf(scale[1]))}>
                <TypedField
                  label="Distance between the two points"
                  value=""
                  placeholder="how far apart"
                  width={120}
                  tone="wanted"
                  focusNow
                  echo={(typed) => echoOf(typed, job.unit)}
                  commit={(distance) =>
                    edit({
                      kind: 'scale-trace',
                      first: pictureAt(trace, scale[0]),
                      second: pictureAt(trace, scale[1]),
                      distance,
                    }).then(() => setScale(null))
                  }
                  onLeave={() => setScale(null)}
                />
              </At>
            )}
            <ToolHint hint={hint} place="top" />
          </>
        )}
      >
        {({ camera, widthPx, heightPx }) => {
          scaleNow.current = camera.pxPerM;
          return (
            <>
              {trace && <TracePicture camera={camera} trace={trace} />}
              {lot_lines.map((line) => (
                <LotLine key={line.id} camera={camera} line={line} />
              ))}
              {shade_sources.map((source, i) => {
                const view = survey.shade[i];
                return (
                  view && (
                    <g key={source.id} {...grip('shade', source.id, shadeWords(source, view))}>
                      <ShadeMark
                        camera={camera}
                        source={source}
                        view={view}
                        chosen={chosen === nameOf('shade', source.id)}
                      />
                    </g>
                  )
                );
              })}
              {job.survey.planes.map((p, i) => {
                const seen: PlaneSurvey | undefined = survey.planes[i];
                return (
                  seen && (
                    <g key={p.id} {...grip('plane', p.id, `${p.name} on the site`)}>
                      <PlaneOnSite
                        camera={camera}
                        seen={seen}
                        chosen={chosen === nameOf('plane', p.id)}
                      />
                    </g>
                  )
                );
              })}
              {job.survey.planes.map((p, i) => {
                const seen = survey.planes[i];
                return seen && <PlaneLabel key={p.id} camera={camera} plane={p} seen={seen} />;
              })}
              {report.planes.map(
                ({ plane_id, trench }) =>
                  trench && (
                    <Trench
                      key={plane_id}
                      camera={camera}
                      points={trench.points}
                      told={trenchTold(plane_id, trench.length_m)}
                    />
                  ),
              )}
              {GEAR.map(([gear, title, letter]) => {
                const at = service[gear];
                return (
                  at && (
                    <g key={gear} {...grip('gear', gear, title)}>
                      <GearMark
                        camera={camera}
                        letter={letter}
                        at={at}
                        chosen={chosen === nameOf('gear', gear)}
                      />
                    </g>
                  )
                );
              })}
              {tool.kind === 'join' && (
                <SiteEdges
                  camera={camera}
                  planes={survey.planes}
                  picked={tool.first}
                  onEdge={(edge) => click({ on: 'edge', edge })}
                />
              )}
              {from.length > 0 && (
                <DrawnPoints
                  camera={camera}
                  points={from.map(pointOf)}
                  hover={hover ? pointOf(hover) : null}
                />
              )}
              <NorthAndScale
                camera={camera}
                widthPx={widthPx}
                heightPx={heightPx}
                unit={job.unit}
              />
            </>
          );
        }}
      </Pane>
      <SiteBoard
        plane={plane}
        chosen={chosen}
        face={face}
        onFace={setFace}
        onChoose={choose}
        onTake={take}
      />
    </>
  );
}
