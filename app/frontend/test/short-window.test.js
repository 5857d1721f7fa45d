import assert from 'node:assert/strict';
import { test } from 'node:test';
import { openPage } from './page.js';

openPage('<div class="grid-page"><div class="grid-table"><p></p></div></div>');
const { startShortWindow } = await import('../js/frame/short-window.js');
startShortWindow();

const page = document.querySelector('.grid-page');
Object.defineProperties(page, { scrollHeight: { value: 700 }, clientHeight: { value: 400 } });

/** Whether the list is left to scroll. */
function turn(deltaY) {
  const event = new document.defaultView.WheelEvent('wheel', { deltaY, bubbles: true, cancelable: true });
  document.querySelector('p').dispatchEvent(event);
  return !event.defaultPrevented;
}

test('in a short window the head goes first, then the list scrolls', () => {
  page.style.overflowY = 'auto';
  page.scrollTop = 0;
  assert.deepEqual([turn(200), page.scrollTop], [false, 200]);
  assert.deepEqual([turn(200), page.scrollTop], [false, 300]);
  assert.deepEqual([turn(200), page.scrollTop], [true, 300]);
  assert.equal(turn(-200), true);
});

test('in a window with room the list scrolls at once', () => {
  page.style.overflowY = 'hidden';
  page.scrollTop = 0;
  assert.deepEqual([turn(200), page.scrollTop], [true, 0]);
});
