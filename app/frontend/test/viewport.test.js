import assert from 'node:assert/strict';
import { test } from 'node:test';
import { openPage } from './page.js';

openPage('<div></div>');
const { Viewport } = await import('../js/canvas/viewport.js');

/** A window of 848 × 648 onto a sheet: 800 × 600 within its margins. */
const view = () => new Viewport({ clientWidth: 848, clientHeight: 648 });

test('of a narrow drawing as much is in sight as the window is high, of a wide one more, since it is smaller', () => {
  assert.deepEqual(
    [100, 800, 1600].map((width) => view().heightFor(width)),
    [600, 600, 1200],
  );
});

test('what is fitted stands in the middle, no larger than it is', () => {
  const viewport = view();
  viewport.fit({ x: 10, y: 20, width: 200, height: 300 });
  assert.deepEqual([viewport.scale, viewport.x, viewport.y], [1, 314, 154]);
  viewport.fit({ x: 0, y: 0, width: 1600, height: 600 });
  assert.deepEqual([viewport.scale, viewport.x, viewport.y], [0.5, 24, 174]);
});
