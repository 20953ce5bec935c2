import { expect, test } from 'vitest';
import { fitCamera, toPlane, toScreen } from './camera';

const frame = {
  widthPx: 400,
  heightPx: 300,
  paddingPx: { left: 50, right: 50, top: 50, bottom: 50 },
};

test('a wide plane fills the width inside the padding and keeps its shape', () => {
  const camera = fitCamera(
    [
      { xM: 0, yM: 0 },
      { xM: 10, yM: 2 },
    ],
    frame,
  );
  expect(camera.pxPerM).toBeCloseTo(30);
  expect(toScreen(camera, { xM: 0, yM: 0 })).toEqual({ xPx: 50, yPx: 180 });
  expect(toScreen(camera, { xM: 10, yM: 2 })).toEqual({ xPx: 350, yPx: 120 });
});

test('pixels lead back to the same metres', () => {
  const camera = fitCamera(
    [
      { xM: -1, yM: 0 },
      { xM: 7, yM: 5 },
    ],
    frame,
  );
  const back = toPlane(camera, toScreen(camera, { xM: 3.2, yM: 4.1 }));
  expect(back.xM).toBeCloseTo(3.2);
  expect(back.yM).toBeCloseTo(4.1);
});
