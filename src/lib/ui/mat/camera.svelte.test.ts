import { describe, expect, test } from 'vitest';
import { mm } from '../../core/measure/unit';
import { Camera, RULER } from './camera.svelte';

const lookingAt = (width: number, height: number, to: 'all' | 'width' = 'all'): Camera => {
  const camera = new Camera();
  [camera.width, camera.height] = [1000, 700];
  camera.fit({ width, height }, to);
  return camera;
};

describe('the camera of the mat', () => {
  test.each<[what: string, width: number, height: number]>([
    ['one A4 page', mm(210), mm(297)],
    ['a poster', mm(841), mm(1189)],
    ['a business card, which stays small', mm(85), mm(55)],
  ])('fits %s whole', (_, width, height) => {
    const { view, k } = lookingAt(width, height);
    expect(view.x0).toBeLessThan(0);
    expect(view.y0).toBeLessThan(0);
    expect(view.x1).toBeGreaterThan(width);
    expect(view.y1).toBeGreaterThan(height);
    expect(k).toBeLessThanOrEqual(2.2);
  });

  test('fits a long book by its width', () => {
    const { view } = lookingAt(1000, 20_000, 'width');
    expect(view.x1).toBeGreaterThan(1000);
    expect(view.y1).toBeLessThan(2000);
  });

  test('what is under the pointer stays there while it zooms', () => {
    const camera = lookingAt(mm(210), mm(297));
    const before = camera.toMat(300, 200);
    camera.zoomBy(3.7, 300, 200);
    const after = camera.toMat(300, 200);
    expect(after.x).toBeCloseTo(before.x, 9);
    expect(after.y).toBeCloseTo(before.y, 9);
    expect(camera.touched).toBe(true);
  });

  test('real size: 25.4 mm on paper are 96 px', () => {
    const camera = lookingAt(mm(841), mm(1189));
    camera.zoom('real');
    expect(camera.k * mm(25.4)).toBeCloseTo(96, 9);
  });

  test('moves only where a box is out of sight, and then has its middle in the middle', () => {
    const camera = lookingAt(1000, 20_000, 'width');
    const { ox, oy } = camera;
    camera.show({ x0: 10, y0: 10, x1: 90, y1: 90 });
    expect([camera.ox, camera.oy]).toEqual([ox, oy]);
    camera.show({ x0: 100, y0: 9000, x1: 300, y1: 9200 });
    const middle = camera.toMat((1000 + RULER) / 2, (700 + RULER) / 2);
    expect([middle.x, middle.y]).toEqual([expect.closeTo(200, 6), expect.closeTo(9100, 6)]);
  });

  test('zooms as far as it makes sense, and no further', () => {
    const camera = lookingAt(100, 100);
    for (let n = 0; n < 100; n++) camera.zoom('in');
    expect(camera.k).toBe(60);
    for (let n = 0; n < 100; n++) camera.zoom('out');
    expect(camera.k).toBe(0.01);
  });
});
