import assert from 'node:assert/strict';
import { test } from 'node:test';
import { openPage } from './page.js';

openPage('<div id="bench-messages"></div>');
const { clockFace, seconds, shortWords, typedValue } = await import('../js/runs/bench.js');
const { Messages } = await import('../js/runs/messages.js');

test('the clock shows hours, minutes and seconds, and parts of a second only where there are some', () => {
  assert.deepEqual([0, 59, 60, 3_661, 90_000, 12.5, 0.0004, 7.06, 7.999].map(clockFace), [
    '0:00:00',
    '0:00:59',
    '0:01:00',
    '1:01:01',
    '25:00:00',
    '0:00:12.5',
    '0:00:00',
    '0:00:07.06',
    '0:00:08',
  ]);
});

test('a time is typed with or without a unit; what is no time is none', () => {
  assert.deepEqual(['10 min', '3 h', '45', '1.5 s', '250ms', ' 2 s '].map(seconds), [600, 10_800, 45, 1.5, 0.25, 2]);
  assert.deepEqual(
    ['soon', '', '-3 s', '3 days', '1,5 s'].map(seconds),
    Array.from({ length: 5 }, () => undefined),
  );
});

/** The rows that a stream of events makes, each as from, to and words. */
function rows(events) {
  const messages = new Messages(document.getElementById('bench-messages'));
  events.forEach((event) => messages.event({ path: '', element: '', ...event }));
  return messages.rows.map(({ from, to, words, state }) => [from, to ?? null, words ?? state]);
}

test('an item that a part sent leads from it; one that came from outside leads from you', () => {
  assert.deepEqual(
    rows([
      { time: 1, kind: 'SENT', detail: 'Order 1', part: 'office' },
      { time: 2, kind: 'ACCEPTED', detail: 'Order 1 via desk', part: 'control' },
      { time: 3, kind: 'ACCEPTED', detail: 'Alarm 2', part: 'control' },
      { time: 4, kind: 'DROPPED', detail: 'Alarm 3: no transition accepts it now', part: 'control' },
      { time: 5, kind: 'LOST', detail: 'Order 4: nobody there accepts it', part: 'office' },
    ]),
    [
      ['office', 'control', 'Order 1'],
      ['you', 'control', 'Alarm 2'],
      ['you', 'control', 'Alarm 3, not accepted'],
      ['office', null, 'Order 4, nobody there'],
    ],
  );
});

test('an item that two parallel states of one part take is one message', () => {
  const taken = { time: 1, kind: 'ACCEPTED', detail: 'Alarm 1', part: 'control' };
  assert.equal(rows([taken, taken]).length, 1);
  assert.equal(rows([taken, { ...taken, part: 'lamp' }]).length, 2);
});

test('the drawing has a line of life for each part, and you stand on the left', () => {
  const place = document.getElementById('bench-messages');
  const messages = new Messages(place);
  messages.draw();
  assert.equal(place.textContent, 'There are no messages yet.');
  messages.event({
    time: 0,
    kind: 'ENTERED',
    detail: '',
    part: 'gate.control',
    path: 'gate.control.modes.open',
    element: 'e',
  });
  messages.event({ time: 3, kind: 'ACCEPTED', detail: 'Alarm 1', part: 'gate.control', path: '', element: 'e' });
  messages.draw();
  assert.deepEqual(
    [...place.querySelectorAll('text.life')].map((life) => life.firstChild.data),
    ['you', 'control'],
  );
  assert.equal(place.querySelector('text.state').textContent, 'open');
  assert.deepEqual(
    [...place.querySelectorAll('text.time')].map((time) => time.textContent),
    ['0 s', '3 s'],
  );
});

test('on a drawing, what is waited for is told by its last name', () => {
  assert.deepEqual(
    [
      "waits at 'crew.work.both' for 'crew.work.right' to end",
      "no branch of 'crew.work.d' is open (crew.level = 3 m)",
      "waits for 'Call' via crew.line",
    ].map(shortWords),
    ["waits for 'right' to end", "no branch of 'd' is open (crew.level = 3 m)", "waits for 'Call' via crew.line"],
  );
});

test('what is typed into a field is a number or a truth, or is refused', () => {
  assert.deepEqual(
    ['2.5', ' -3e2 ', '', 'high', '1,5', 'Infinity'].map((text) => typedValue(text, false)),
    [2.5, -300, undefined, undefined, undefined, undefined],
  );
  assert.deepEqual(
    ['true', 'Yes', '1', 'false', 'no', '0', 'maybe', ''].map((text) => typedValue(text, true)),
    [1, 1, 1, 0, 0, 0, undefined, undefined],
  );
});
