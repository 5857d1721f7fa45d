import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { openPage } from './page.js';

openPage();
const { goalMark, onDrag, placeInRow } = await import('../js/frame/drag.js');

let log;
let handlers;

beforeEach(() => {
  document.body.innerHTML = '<ul><li id="a">a</li><li id="b">b</li></ul>';
  log = [];
  document.elementFromPoint = (x, y) => document.getElementById(y < 50 ? 'a' : 'b');
  document.body.onclick = () => log.push('click');
  handlers = {
    begin: (event) => event.target.id || null,
    goal: (target, _, dragged) => (target.id === dragged ? null : target.id),
    show: (goal) => log.push(`show ${goal}`),
    drop: (dragged, goal) => log.push(`drop ${dragged} on ${goal}`),
    end: () => log.push('end'),
  };
});

const list = () => document.querySelector('ul');
const point = (type, clientX, clientY, target = document.getElementById('a')) =>
  target.dispatchEvent(new MouseEvent(type, { bubbles: true, cancelable: true, button: 0, clientX, clientY }));

test('what is dragged is dropped on the goal, and its release is no click', () => {
  onDrag(list(), handlers);
  point('pointerdown', 10, 10);
  point('pointermove', 10, 40);
  point('pointermove', 10, 80);
  point('pointerup', 10, 80);
  point('click', 10, 80);
  assert.deepEqual(log, ['show null', 'show b', 'show null', 'end', 'drop a on b']);
});

test('a press that hardly moves is a click', () => {
  onDrag(list(), handlers);
  point('pointerdown', 10, 10);
  point('pointermove', 12, 11);
  point('pointerup', 12, 11);
  point('click', 12, 11);
  assert.deepEqual(log, ['show null', 'click']);
});

test('Escape ends a drag without a drop', () => {
  onDrag(list(), handlers);
  point('pointerdown', 10, 10);
  point('pointermove', 10, 80);
  dispatchEscape();
  point('pointerup', 10, 80);
  assert.deepEqual(log, ['show b', 'show null', 'end']);
});

test('nothing is dropped where there is no goal', () => {
  onDrag(list(), handlers);
  point('pointerdown', 10, 10);
  point('pointermove', 30, 30);
  point('pointerup', 30, 30);
  assert.deepEqual(log, ['show null', 'show null', 'end']);
});

test('steps add up to the whole way', () => {
  let way = 0;
  onDrag(list(), { begin: () => 'edge', move: ({ dx }) => (way += dx) });
  point('pointerdown', 10, 10);
  [12, 17, 15, 40].forEach((x) => point('pointermove', x, 10));
  point('pointerup', 40, 10);
  assert.equal(way, 30);
});

test('other buttons do not drag', () => {
  onDrag(list(), handlers);
  list().dispatchEvent(new MouseEvent('pointerdown', { bubbles: true, button: 2 }));
  point('pointermove', 10, 80);
  assert.deepEqual(log, []);
});

test('the place in a row is before, into or behind', () => {
  const row = { getBoundingClientRect: () => ({ top: 100, height: 50 }) };
  const at = (clientY) => placeInRow(row, { clientY });
  assert.deepEqual([101, 125, 149].map(at), ['before', 'into', 'behind']);
});

test('one goal is marked at a time', () => {
  const mark = goalMark();
  const [a, b] = document.querySelectorAll('li');
  mark(a, 'before');
  mark(b);
  assert.deepEqual([a.className, b.className], ['', 'into']);
  mark(null);
  assert.equal(b.className, '');
});

function dispatchEscape() {
  document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
}
