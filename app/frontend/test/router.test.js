import assert from 'node:assert/strict';
import { test } from 'node:test';
import { overlaps } from '../js/canvas/geometry.js';
import { facing, piecesOf, route, through } from '../js/canvas/router.js';

/** The same numbers each time (Park and Miller 1988). */
function numbers(seed) {
  let state = seed;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

const isOrthogonal = (points) => piecesOf(points).every(({ width, height }) => Math.min(width, height) <= 0.5);

const end = (box, side) => ({
  side,
  at: {
    left: [box.x, box.y + box.height / 2],
    right: [box.x + box.width, box.y + box.height / 2],
    top: [box.x + box.width / 2, box.y],
    bottom: [box.x + box.width / 2, box.y + box.height],
  }[side],
});

test('a line between boxes that face each other is straight', () => {
  const [a, b] = [
    { x: 0, y: 0, width: 100, height: 50 },
    { x: 300, y: 0, width: 100, height: 50 },
  ];
  assert.deepEqual(facing(a, b), ['right', 'left']);
  assert.deepEqual(route(end(a, 'right'), end(b, 'left'), [a, b]), [
    [100, 25],
    [300, 25],
  ]);
});

test('a line goes around a box in its way', () => {
  const [a, b, between] = [
    { x: 0, y: 0, width: 100, height: 50 },
    { x: 400, y: 0, width: 100, height: 50 },
    { x: 200, y: -30, width: 100, height: 120 },
  ];
  const way = route(end(a, 'right'), end(b, 'left'), [a, b, between]);
  assert.ok(isOrthogonal(way));
  assert.ok(piecesOf(way).every((piece) => !overlaps(piece, between)));
});

test('a line whose end is close to a box still goes around it', () => {
  const box = { x: 200, y: 0, width: 300, height: 200 };
  const way = route({ at: [100, 100], side: 'right' }, { at: [518, 120], side: 'left' }, [box]);
  assert.ok(isOrthogonal(way));
  assert.ok(piecesOf(way).every((piece) => !overlaps(piece, box)));
});

test('the second line between two boxes keeps apart from the first', () => {
  const [a, b] = [
    { x: 0, y: 0, width: 100, height: 50 },
    { x: 300, y: 200, width: 100, height: 50 },
  ];
  const first = route(end(a, 'right'), end(b, 'left'), [a, b]);
  const second = route({ at: [100, 40], side: 'right' }, { at: [300, 240], side: 'left' }, [a, b], piecesOf(first));
  assert.notEqual(first[1][0], second[1][0]);
});

test('among boxes at random every line is orthogonal, crosses no box and leaves by its sides', () => {
  const random = numbers(7);
  const sides = ['left', 'right', 'top', 'bottom'];
  for (let round = 0; round < 300; round++) {
    const boxes = [];
    while (boxes.length < 14) {
      const box = {
        x: Math.round(random() * 900),
        y: Math.round(random() * 600),
        width: 60 + Math.round(random() * 120),
        height: 40 + Math.round(random() * 80),
      };
      // As far apart as layouts put boxes.
      if (!boxes.some((other) => overlaps(box, other, 48))) {
        boxes.push(box);
      }
    }
    const [a, b] = boxes;
    const from = end(a, sides[Math.floor(random() * 4)]);
    const to = end(b, sides[Math.floor(random() * 4)]);
    const way = route(from, to, boxes);
    assert.deepEqual(way[0], from.at);
    assert.deepEqual(way.at(-1), to.at);
    assert.ok(isOrthogonal(way), `round ${round}`);
    for (const piece of piecesOf(way)) {
      for (const box of boxes) {
        assert.ok(!overlaps(piece, box, -0.5), `round ${round}: ${JSON.stringify({ piece, box })}`);
      }
    }
  }
});

test('a line keeps the corners a person gave it', () => {
  const way = through({ at: [0, 0], side: 'right' }, { at: [200, 100], side: 'left' }, [
    [60, -40],
    [140, -40],
  ]);
  assert.ok(isOrthogonal(way));
  assert.ok(way.some(([x, y]) => x === 60 && y === -40));
  assert.ok(way.some(([x, y]) => x === 140 && y === -40));
});
