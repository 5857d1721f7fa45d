import assert from 'node:assert/strict';
import { test } from 'node:test';
import { openPage } from './page.js';

openPage();
const { RowLayout, VirtualList } = await import('../js/frame/virtual-list.js');

/** The last row that begins at a height or above it, by looking at all of them. */
function rowAt(heights, y) {
  let top = 0;
  let found = 0;
  heights.forEach((height, index) => {
    if (top <= y) {
      found = index;
    }
    top += height;
  });
  return found;
}

test('rows are found by their height as by looking at all of them', () => {
  const heights = Array.from({ length: 200 }, (_, i) => [36, 58, 44, 34][(i * 7) % 4]);
  const layout = RowLayout.of(heights);
  assert.equal(
    layout.height,
    heights.reduce((sum, height) => sum + height, 0),
  );
  for (let y = 0; y < layout.height + 100; y += 13) {
    assert.equal(layout.at(y), rowAt(heights, y), `at ${y} px`);
  }
});

test('rows of one height need no list of heights', () => {
  const layout = RowLayout.uniform(1_000_000, 26);
  assert.equal(layout.height, 26_000_000);
  assert.equal(layout.at(26 * 500_000 + 25), 500_000);
  assert.equal(layout.heightOf(999_999), 26);
  assert.equal(RowLayout.uniform(0, 26).at(100), 0);
});

function listOf(count, viewportHeight, options = {}) {
  const viewport = document.createElement('div');
  const canvas = document.createElement('div');
  viewport.append(canvas);
  document.body.append(viewport);
  Object.defineProperty(viewport, 'clientHeight', { value: viewportHeight });
  return new VirtualList({
    viewport,
    canvas,
    layout: () => RowLayout.uniform(count, 20),
    draw: (first, last) =>
      Array.from({ length: last - first }, (_, i) =>
        Object.assign(document.createElement('div'), { textContent: `row ${first + i}`, tabIndex: 0 }),
      ),
    spare: 0,
    ...options,
  });
}

test('only rows in sight are in the page', () => {
  const list = listOf(10_000, 100);
  list.viewport.scrollTop = 4000;
  list.render();
  assert.equal(list.canvas.firstChild.textContent, 'row 200');
  assert.equal(list.canvas.lastChild.textContent, 'row 205');
  assert.equal(list.canvas.style.height, '200000px');
});

test('a row is revealed by the least scrolling', () => {
  const list = listOf(100, 100);
  list.reveal(2);
  assert.equal(list.viewport.scrollTop, 0);
  list.reveal(9);
  assert.equal(list.viewport.scrollTop, 100);
  list.reveal(6);
  assert.equal(list.viewport.scrollTop, 100);
  list.reveal(3);
  assert.equal(list.viewport.scrollTop, 60);
});

test('the head above the rows leaves less room for them', () => {
  const list = listOf(100, 100, { head: 40 });
  list.reveal(4);
  assert.equal(list.viewport.scrollTop, 40);
});

test('the focus is put back, and rows stay while the owner says so', () => {
  let back = 0;
  const list = listOf(10, 100, { refocus: () => back++ });
  list.render();
  assert.equal(back, 0);
  list.canvas.firstChild.focus();
  list.render();
  assert.equal(back, 1);
  const before = list.canvas.firstChild;
  list.draw = () => null;
  list.render();
  assert.equal(list.canvas.firstChild, before);
});
