// The quiet line that says what was saved, and undo and redo from the bar and the keyboard.
import { isTyping } from './keys.js';
import { branch, post } from './server.js';
import { refresh } from './live.js';

let hide;

/** Shows a line at the bottom for a while; with an offer to undo where something was saved. */
export function say(message, undoable = false) {
  const line = document.getElementById('saved');
  line.replaceChildren(Object.assign(document.createElement('span'), { textContent: message }));
  if (undoable) {
    const undo = Object.assign(document.createElement('button'), { type: 'button', textContent: 'Undo' });
    undo.addEventListener('click', () => turn('undo'));
    line.append(undo);
  }
  line.hidden = false;
  clearTimeout(hide);
  hide = setTimeout(() => {
    line.hidden = true;
  }, 6000);
}

async function turn(direction) {
  const { status, body } = await post(`${branch()}/${direction}`);
  say(status === 200 && body.saved ? `${body.message} · ${body.revision}` : body.message);
  await refresh();
}

export function startHistory() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-turn]');
    if (button && !button.disabled) {
      turn(button.dataset.turn);
    }
  });
  document.addEventListener('keydown', (event) => {
    if (!(event.ctrlKey || event.metaKey) || isTyping(event)) {
      return;
    }
    const key = event.key.toLowerCase();
    if (key === 'z' || key === 'y') {
      event.preventDefault();
      turn(key === 'y' || event.shiftKey ? 'redo' : 'undo');
    }
  });
}
