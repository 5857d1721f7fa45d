import assert from 'node:assert/strict';
import { test } from 'node:test';
import { aligned, atBorder, distributed, labelPlace, pathOf, simplified, snap } from '../js/canvas/geometry.js';

const BOXES = [
  { x: 0, y: 0, width: 100, height: 50 },
  { x: 30, y: 90, width: 60, height: 40 },
  { x: 200, y: 400, width: 80, height: 60 },
];

test('a box near the edge of another is drawn to it, with a line that shows why', () => {
  const { dx, dy, guides } = snap({ x: 203, y: 320, width: 80, height: 60 }, [BOXES[2]], 6);
  assert.equal(dx, -3);
  assert.equal(dy, 0);
  assert.deepEqual(guides, [
    [
      [200, 320],
      [200, 460],
    ],
  ]);
});

test('a box far from all others stays where it is put', () => {
  assert.deepEqual(snap({ x: 700, y: 700, width: 11, height: 13 }, BOXES, 6), { dx: 0, dy: 0, guides: [] });
});

test('boxes are aligned at the outermost edge or in the middle', () => {
  assert.deepEqual(
    aligned(BOXES, 'left').map(({ x }) => x),
    [0, 0, 0],
  );
  assert.deepEqual(
    aligned(BOXES, 'bottom').map(({ y }) => y),
    [410, 420, 400],
  );
  assert.deepEqual(
    aligned(BOXES, 'centre').map(({ x }) => x),
    [90, 110, 100],
  );
});

test('distributed boxes have equal gaps and the outermost stay', () => {
  const places = distributed(BOXES, 'down');
  assert.deepEqual(
    places.map(({ y }) => y),
    [0, 205, 400],
  );
});

test('a port stands at the nearest border', () => {
  assert.deepEqual(atBorder({ x: 10, y: 10, width: 100, height: 50 }, [108, 30]), { side: 'right', x: 100, y: 20 });
  assert.deepEqual(atBorder({ x: 10, y: 10, width: 100, height: 50 }, [60, 5]), { side: 'top', x: 50, y: 0 });
});

test('corners that are none are left out, the others are rounded', () => {
  const points = simplified([
    [0, 0],
    [50, 0],
    [100, 0],
    [100, 80],
  ]);
  assert.deepEqual(points, [
    [0, 0],
    [100, 0],
    [100, 80],
  ]);
  assert.equal(pathOf(points), 'M0 0L94 0Q100 0 100 6L100 80');
});

test('a label goes where it covers nothing', () => {
  const points = [
    [0, 0],
    [100, 0],
    [100, 60],
  ];
  const [x, y] = labelPlace(points, { width: 40, height: 14 });
  assert.deepEqual([x, y], [30, -5]);
  assert.deepEqual(
    labelPlace(points, { width: 40, height: 14 }, (place) => (place.y < 0 ? 1 : 0)),
    [30, 14],
  );
});

test('where a label covers something everywhere it covers what is least bad', () => {
  const points = [
    [0, 0],
    [0, 100],
  ];
  const boxToTheRightAndLineToTheLeft = ({ x }) => (x > 0 ? 100 : 1);
  assert.deepEqual(labelPlace(points, { width: 40, height: 14 }, boxToTheRightAndLineToTheLeft), [-46, 54]);
});
