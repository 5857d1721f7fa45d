// Settling links that need recheck: one by its own button, many by their boxes.
import { save } from '../frame/saving.js';
import { say } from '../frame/notice.js';

export function startRecheck() {
  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-lookedat]');
    if (!button) {
      return;
    }
    const links = button.dataset.key
      ? [button.dataset.key]
      : [...document.querySelectorAll('[data-recheck]:checked')].map((box) => box.value);
    if (links.length) {
      save(`/recheck/${button.dataset.lookedat}`, { links, note: document.getElementById('recheck-note').value });
    } else {
      say('Choose the links you have looked at.');
    }
  });
}
