import assert from 'node:assert/strict';
import { test } from 'node:test';
import { Windows } from '../js/frame/windows.js';
import { later } from './page.js';

function windowsOf(fetch) {
  const known = new Set();
  const windows = new Windows(10, fetch, ({ from }) => {
    for (let i = from; i < from + 10; i++) {
      known.add(i);
    }
  });
  const need = (first, last) =>
    windows.need(
      first,
      last,
      (index) => known.has(index),
      () => {},
    );
  return { windows, known, need };
}

test('each window is fetched once', async () => {
  const fetched = [];
  const { windows, known, need } = windowsOf(async (from) => {
    fetched.push(from);
    return { from };
  });
  await windows.restart(Promise.resolve({ from: 0 }));
  await Promise.all([need(5, 25), need(8, 25)]);
  await need(0, 30);
  assert.deepEqual(
    fetched.toSorted((a, b) => a - b),
    [0, 10, 20],
  );
  assert.equal(known.size, 30);
});

test('of two starts only the last counts', async () => {
  const { windows } = windowsOf(async (from) => ({ from }));
  const slow = later();
  const first = windows.restart(slow.promise);
  const second = windows.restart(Promise.resolve({ from: 50 }));
  assert.deepEqual(await second, { from: 50 });
  slow.resolve({ from: 0 });
  assert.equal(await first, null);
});

test('a window of the time before a start is not taken', async () => {
  const slow = later();
  const { windows, known, need } = windowsOf(() => slow.promise);
  await windows.restart(Promise.resolve({}));
  const needed = need(0, 10);
  await windows.restart(Promise.resolve({}));
  slow.resolve({ from: 0 });
  await needed;
  assert.equal(known.size, 0);
});

test('what cannot be had leaves what there is', async () => {
  const { windows, known, need } = windowsOf(async () => null);
  assert.equal(await windows.restart(Promise.resolve(null)), null);
  await need(0, 10);
  assert.equal(known.size, 0);
});
