import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { openPage } from './page.js';

const window = openPage('<div id="cell"></div>');
globalThis.innerHeight = 800;
const { Ahead } = await import('../js/grid/ahead.js');

const did = [];
let ahead;

beforeEach(() => {
  did.length = 0;
  ahead?.close();
  ahead = new Ahead(
    document.getElementById('cell'),
    'requirement',
    () => did.push('again'),
    () => did.push('dropped'),
  );
});

const press = (key, more = {}) =>
  ahead.box.dispatchEvent(new window.KeyboardEvent('keydown', { key, bubbles: true, ...more }));

test('what was typed before the field was there is in it', () => {
  ['T', 'h', 'x', 'Backspace', 'e', 'Shift'].forEach((key) => ahead.type(key));
  assert.deepEqual(ahead.take(), { text: 'The', key: null, rest: [] });
});

test('Enter ends the line; what comes after it is done when the line is there', () => {
  ahead.type('A');
  press('Enter');
  press('ArrowDown');
  ahead.type('B');
  assert.ok(ahead.field.readOnly);
  assert.deepEqual(ahead.take(), { text: 'A', key: 'Enter', rest: ['ArrowDown', 'B'] });
  assert.equal(document.querySelector('.ahead'), null);
});

test('Shift Enter begins a line of the text', () => {
  press('Enter', { shiftKey: true });
  assert.equal(ahead.ended, null);
});

test('a refused line keeps its text and its reason; Enter tries again, Escape gives it up', () => {
  ahead.type('A');
  press('Enter');
  ahead.refuse('the specification is locked');
  assert.equal(ahead.box.querySelector('[role="alert"]').textContent, 'the specification is locked');
  assert.equal(ahead.field.value, 'A');
  assert.equal(ahead.field.readOnly, false);
  press('Enter');
  assert.deepEqual(did, ['again']);
  assert.equal(ahead.box.querySelector('.fault'), null);
  ahead.refuse('still locked');
  press('Escape');
  assert.deepEqual(did, ['again', 'dropped']);
  assert.equal(document.querySelector('.ahead'), null);
});
