import assert from 'node:assert/strict';
import { test } from 'node:test';
import { longestPiece, nearestPiece, opened, shifted } from '../js/canvas/bending.js';
import { openPage } from './page.js';

openPage();
const { neighbour } = await import('../js/canvas/keyboard.js');

const STRAIGHT = [
  [0, 0],
  [100, 0],
];
const BENT = [
  [0, 0],
  [0, 60],
  [200, 60],
  [200, 90],
];

test('a straight line gets a corner near each end, so that its middle can be moved', () => {
  assert.deepEqual(opened(STRAIGHT), [
    [0, 0],
    [16, 0],
    [84, 0],
    [100, 0],
  ]);
  const short = opened([
    [0, 0],
    [0, 9],
  ]);
  assert.deepEqual(short[1], [0, 3]);
  assert.deepEqual(opened(BENT).length, 6);
});

test('the piece that is meant is the one nearest to the pointer, never a stub at an end', () => {
  const points = opened(BENT);
  assert.equal(nearestPiece(points, [100, 58]), 2);
  assert.equal(nearestPiece(points, [1, 40]), 1);
  assert.equal(nearestPiece(points, [0, 0]), 1);
  assert.equal(nearestPiece(points, [203, 80]), 3);
});

test('a piece moves sideways, and what is before and behind it follows', () => {
  const points = opened(BENT);
  assert.deepEqual(shifted(points, 2, [0, 25]), [
    [0, 85],
    [200, 85],
  ]);
  assert.deepEqual(shifted(opened(STRAIGHT), 1, [0, -30]), [
    [16, -30],
    [84, -30],
  ]);
});

test('keys move the longest piece', () => {
  assert.equal(longestPiece(opened(BENT)), 2);
  assert.equal(longestPiece(STRAIGHT), 1);
});

test('an arrow key goes to the nearest box in its direction; what is aside counts double', () => {
  const rect = (x, y) => ({ x, y, width: 20, height: 20 });
  const others = [
    { key: 'right', rect: rect(100, 0) },
    { key: 'aside', rect: rect(60, 40) },
    { key: 'below', rect: rect(0, 300) },
  ];
  assert.equal(neighbour(rect(0, 0), others, [1, 0]), 'right');
  assert.equal(neighbour(rect(0, 0), others, [0, 1]), 'aside');
  assert.equal(neighbour(rect(0, 0), [others[0], others[2]], [0, 1]), 'below');
  assert.equal(neighbour(rect(0, 0), others, [-1, 0]), undefined);
});
