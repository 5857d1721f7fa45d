import assert from 'node:assert/strict';
import { test } from 'node:test';
import { order } from '../js/needs/story-rows.js';

// Every browser of today has it, Node.js 20 has not.
Map.groupBy ??= (items, keyOf) => {
  const groups = new Map();
  for (const item of items) {
    groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item]);
  }
  return groups;
};

const step = (id, label) => ({ id, label });
const END = { how: 'ends' };

/** A main story of three steps with an alternative behind the second, which has one of its own. */
const STORY = {
  ways: [
    { label: '', carrier: null, steps: [step('a', '1'), step('b', '2'), step('c', '3')], end: END },
    { label: '2a', carrier: 'w1', leaves: 'b', steps: [step('d', '2a1')], end: END },
    { label: '2a1a', carrier: 'w2', leaves: 'd', steps: [step('e', '2a1a1')], end: END },
  ],
};

const draft = (key, anchor, mode = 'step', way = null) => ({
  key,
  anchor,
  mode,
  way,
  node: { dataset: {} },
  conditionNode: {},
});
const shown = (drafts = [], story = STORY) =>
  order(story, drafts).map(({ type, depth, label, key, draft: written }) =>
    written ? `${depth} ${key}` : `${depth} ${type} ${label}`.trim(),
  );

test('under each step stand the ways that leave it, deeper, and how each goes on', () => {
  assert.deepEqual(shown(), [
    '0 step 1',
    '0 step 2',
    '1 way 2a',
    '1 step 2a1',
    '2 way 2a1a',
    '2 step 2a1a1',
    '2 end',
    '1 end',
    '0 step 3',
    '0 end',
  ]);
});

test('what is being written stands behind its step and the ways that leave that', () => {
  assert.deepEqual(shown([draft('new', { step: 'b' })]).slice(6, 9), ['2 end', '1 end', '0 new']);
  assert.deepEqual(shown([draft('first', { step: null })])[0], '0 first');
});

test('an alternative that is being written has its condition, and is deeper than its step', () => {
  const written = draft('other', { step: 'c' }, 'alternative');
  assert.deepEqual(shown([written]).slice(-3), ['1 other if', '0 other', '0 end']);
  assert.equal(written.node.dataset.depth, 1);
});

test('the first step of a way stands in front of the others of that way', () => {
  const rows = shown([draft('first', {}, 'first', '2a')]);
  assert.deepEqual(rows.slice(2, 5), ['1 way 2a', '1 first', '1 step 2a1']);
});

test('lines written one behind the other before the first is saved keep their order', () => {
  const one = draft('one', { step: 'c' });
  const two = draft('two', { draft: one });
  const three = draft('three', { draft: two });
  assert.deepEqual(shown([three, one, two]).slice(-4), ['0 one', '0 two', '0 three', '0 end']);
});

test('a draft whose step is gone is not lost', () => {
  assert.ok(shown([draft('kept', { step: 'gone' })]).includes('0 kept'));
});

test('a story without steps has nothing to go on with', () => {
  assert.deepEqual(shown([], { ways: [{ label: '', carrier: null, steps: [], end: END }] }), []);
});
