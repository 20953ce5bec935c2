/** What the sun does to an option: shade on its modules, days, angles, what trimming gives back. */
import { answerOf, answerTo, OPTION, type OptionAt, pathOf } from '@/api/asking';
import { api, foundOf, type Schemas, sendFile } from '@/api/client';

export type ShadeReport = Schemas['ShadeReport'];
export type ShadeHours = Schemas['ShadeHours'];
export type SunDay = Schemas['SunDay'];
export type WeatherReport = Schemas['WeatherReport'];

export const trimmedQuery = (at: OptionAt, shadeId: string, typed: string) =>
  answerTo<Schemas['Trimmed']>(['trimmed', at, shadeId, typed], (signal) =>
    foundOf(
      api.GET(`${OPTION}/trimmed`, {
        params: { ...pathOf(at), query: { shade_id: shadeId, typed } },
        signal,
      }),
    ),
  );

export const sunPathsQuery = (at: OptionAt, planeId: string, moduleId: string, day: number) =>
  answerOf<Schemas['SunPaths']>(['sun-paths', at, planeId, moduleId, day], (signal) =>
    foundOf(
      api.GET(`${OPTION}/planes/{plane_id}/sun-paths`, {
        params: {
          path: { ...pathOf(at).path, plane_id: planeId },
          query: { module_id: moduleId, day },
        },
        signal,
      }),
    ),
  );

export const shadeHoursQuery = (at: OptionAt, moduleId: string) =>
  answerOf<ShadeHours>(['shade-hours', at, moduleId], (signal) =>
    foundOf(
      api.GET(`${OPTION}/shade-hours`, {
        params: { ...pathOf(at), query: { module_id: moduleId } },
        signal,
      }),
    ),
  );

export const sunDayQuery = (at: OptionAt, day: number) =>
  answerOf<SunDay>(['sun-day', at, day], (signal) =>
    foundOf(api.GET(`${OPTION}/sun-day`, { params: { ...pathOf(at), query: { day } }, signal })),
  );

export const lossesAtMeterQuery = (at: OptionAt) =>
  answerOf<Schemas['LossAtMeter'][]>(['losses-at-meter', at], (signal) =>
    foundOf(api.GET(`${OPTION}/losses-at-meter`, { params: pathOf(at), signal })),
  );

export const atMeterQuery = (at: OptionAt, number: number) =>
  answerTo<Schemas['AtMeter']>(['at-meter', at, number], (signal) =>
    foundOf(
      api.GET(`${OPTION}/at-meter`, { params: { ...pathOf(at), query: { number } }, signal }),
    ),
  );

export const worstQuery = (at: OptionAt) =>
  answerOf<Schemas['WorstModules']>(['worst-modules', at], (signal) =>
    foundOf(api.GET(`${OPTION}/worst-modules`, { params: pathOf(at), signal })),
  );

export const anglesQuery = (at: OptionAt, by: string) =>
  answerOf<Schemas['AngleMap']>(['angles', at, by], (signal) =>
    foundOf(api.GET(`${OPTION}/angles`, { params: { ...pathOf(at), query: { by } }, signal })),
  );

export const splitQuery = (at: OptionAt, tiltDeg: number | null, ratio: number | null) =>
  answerOf<Schemas['SplitStudy']>(['split', at, tiltDeg, ratio], (signal) =>
    foundOf(
      api.GET(`${OPTION}/split`, {
        params: {
          ...pathOf(at),
          query: {
            ...(tiltDeg === null ? {} : { tilt_deg: tiltDeg }),
            ...(ratio === null ? {} : { ratio }),
          },
        },
        signal,
      }),
    ),
  );

/** Sends a weather file to be read; the job keeps the weather it has until it is told otherwise. */
export async function sendWeather(at: OptionAt, file: File): Promise<Schemas['FileTold']> {
  const address = `/api/jobs/${at.jobId}/revisions/${at.revision}/weather`;
  return sendFile<Schemas['FileTold']>(address, file);
}
