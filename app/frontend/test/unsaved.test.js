import assert from 'node:assert/strict';
import { beforeEach, test } from 'node:test';
import { UnsavedText } from '../js/architecture/unsaved.js';

let kept;
const storage = {
  getItem: (key) => kept.get(key) ?? null,
  setItem: (key, value) => kept.set(key, value),
  removeItem: (key) => kept.delete(key),
};

beforeEach(() => {
  kept = new Map();
});

const text = (saved, base) => new UnsavedText('/p/merrow/main/element/1/notation', saved, base, storage);

test('a text that was not saved outlives the page and goes on from its revision', () => {
  text('part def A;', 7).keep('part def B;');
  const next = text('part def A2;', 9);
  assert.equal(next.restore().text, 'part def B;');
  assert.equal(next.base, 7);
});

test('nothing is kept of what is saved', () => {
  const edited = text('part def A;', 7);
  edited.keep('part def B;');
  edited.keep('part def A;');
  assert.equal(kept.size, 0);
  assert.equal(edited.restore(), null);
});

test('a kept text that was saved meanwhile is not offered', () => {
  text('part def A;', 7).keep('part def B;');
  const next = text('part def B;', 8);
  assert.equal(next.restore(), null);
  assert.equal(next.base, 8);
});

test('a newer saved text is taken only if nothing more was typed', () => {
  const edited = text('part def A;', 7);
  assert.equal(edited.take({ text: 'part def A { }', base: 8 }, 'part def A;', 'part def A; // more'), false);
  assert.equal(edited.base, 7);
  assert.equal(edited.take({ text: 'part def A { }', base: 8 }, 'part def A;', 'part def A;'), true);
  assert.equal(edited.base, 8);
  assert.equal(edited.isChanged('part def A { }'), false);
});
