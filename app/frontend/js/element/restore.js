// On the page of an element as it was: brings it back, then shows it as it is now.
import { branch, past, post } from '../frame/server.js';
import { say } from '../frame/notice.js';

export function startRestoring() {
  document.addEventListener('click', async (event) => {
    const button = event.target.closest('[data-restore]');
    if (!button) {
      return;
    }
    const { status, body } = await post(`${branch()}/element/${button.dataset.element}/restore`, {
      number: Number(past()),
      whole: button.dataset.restore === 'whole',
    });
    if (status === 200 && body.saved) {
      location.href = `${branch()}/element/${button.dataset.element}`;
    } else {
      say(body.message);
    }
  });
}
