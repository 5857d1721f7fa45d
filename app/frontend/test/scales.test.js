import assert from 'node:assert/strict';
import { test } from 'node:test';
import { apart, clock, freeNear, number, rangeWith, tickLabels, violations } from '../js/runs/scales.js';

test('numbers have four digits, and a gap is no number', () => {
  assert.deepEqual([1234.56, 0.000123456, 0, -7, null, NaN].map(number), ['1235', '0.0001235', '0', '-7', '–', '–']);
});

test('time is shown in the unit that suits the span', () => {
  assert.deepEqual(
    [299, 300, 7199, 7200].map((last) => clock(last).unit),
    ['s', 'min', 'min', 'h'],
  );
  assert.equal(5400 * clock(5400).factor, 90);
});

test('an axis has room for its values and its limits', () => {
  const rounded = (limits) => rangeWith(limits, 0, 100).map((end) => Number(end.toFixed(9)));
  assert.deepEqual(rounded([]), [-7, 107]);
  assert.deepEqual(rounded([200, null]), [-14, 214]);
  const [bottom, top] = rangeWith([], 5, 5);
  assert.ok(bottom < 5 && top > 5);
});

test('the stretches beyond a limit are found, gaps and ends included', () => {
  const values = [0, 3, 4, 1, null, 5, 2, 6];
  assert.deepEqual(violations(values, { sense: 'UPPER', value: 2.5 }), [
    [1, 2],
    [5, 5],
    [7, 7],
  ]);
  assert.deepEqual(violations(values, { sense: 'LOWER', value: 1 }), [[0, 0]]);
  assert.deepEqual(violations(values, { sense: 'UPPER', value: 6 }), []);
});

test('labels near one line do not cover each other', () => {
  const taken = [];
  const places = [100, 100, 100, 104].map((y) => freeNear(y, taken));
  places.forEach((place, i) =>
    places.slice(i + 1).forEach((other) => assert.ok(Math.abs(place - other) >= 12, `${place} and ${other}`)),
  );
});

test('labels at line ends are moved apart in their order', () => {
  const labels = [
    { text: 'b', y: 12 },
    { text: 'a', y: 10 },
    { text: 'c', y: 40 },
  ];
  assert.deepEqual(apart(labels, 13), [
    { text: 'a', y: 10 },
    { text: 'b', y: 23 },
    { text: 'c', y: 40 },
  ]);
  assert.equal(labels[0].y, 12);
});

test('ticks have the decimals that tell them apart, and no label stands twice', () => {
  assert.deepEqual(tickLabels([0, 50, 100]), ['0', '50', '100']);
  assert.deepEqual(tickLabels([-0.1, 0, 0.1]), ['-0.1', '0.0', '0.1']);
  assert.deepEqual(tickLabels([0, 0.25, 0.5, 0.75]), ['0.00', '0.25', '0.50', '0.75']);
  assert.deepEqual(tickLabels([100000.001, 100000.002]), ['100000.001', '100000.002']);
  assert.deepEqual(tickLabels([0, 2e6, 4e6]), ['0e0', '2e6', '4e6']);
  assert.deepEqual(tickLabels([5]), ['5']);
  for (const step of [1e-9, 2.5e-4, 0.3, 7, 2500, 1e9]) {
    for (const from of [-3 * step, 0, 1000 * step]) {
      const labels = tickLabels(Array.from({ length: 7 }, (_, i) => from + i * step));
      assert.equal(new Set(labels).size, 7, `${labels}`);
    }
  }
});
