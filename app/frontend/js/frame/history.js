// Undo and redo, from the bar, the line that says what was saved, and the keyboard.
import { isTyping } from './keys.js';
import { branch, post } from './server.js';
import { say } from './notice.js';
import { refresh } from './live.js';

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
