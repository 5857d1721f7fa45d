import assert from 'node:assert/strict';
import { test } from 'node:test';
import { lastNames } from '../js/runs/series-names.js';

test('a path is cut to its last names, also within a call', () => {
  assert.equal(lastNames('barrier.gate.leaf.angle', 2), 'leaf.angle');
  assert.equal(lastNames('angle', 2), 'angle');
  assert.equal(lastNames('used(harbour.gate.power)', 1), 'used(power)');
  assert.equal(lastNames('cylinders#(1).oil', 1), 'oil');
});
