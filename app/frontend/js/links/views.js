// Keeping what a page shows as a view, and pinning views to the Overview.
import { refusal, save } from '../frame/saving.js';
import { ask, common } from '../grid/dialog.js';
import { element } from '../frame/dom.js';

/** Keeps what the page shows, with what stands in its address. */
function saveView(button) {
  const query = new URLSearchParams(button.dataset.query ?? location.search);
  query.delete('edit');
  ask(
    common(),
    'Save as a view',
    [
      {
        name: 'name',
        label: 'Name',
        input: element('input', { required: true, maxLength: 120, value: button.dataset.title }),
      },
      {
        name: 'shared',
        label: 'Listed for',
        input: element(
          'select',
          {},
          element('option', { value: 'yes', textContent: 'everybody' }),
          element('option', { value: '', textContent: 'me' }),
        ),
      },
      {
        name: 'pinned',
        label: 'On the Overview',
        input: element(
          'select',
          {},
          element('option', { value: '', textContent: 'no' }),
          element('option', { value: 'yes', textContent: 'pinned, with its count' }),
        ),
      },
    ],
    'Save',
    ({ name, shared, pinned }) =>
      refusal('/views', {
        name,
        page: button.dataset.saveView,
        query: String(query),
        shared: shared === 'yes',
        pinned: pinned === 'yes',
      }),
  );
}

export function startViews() {
  document.addEventListener('change', (event) => event.target.closest('form[data-at-once]')?.requestSubmit());
  document.addEventListener('click', (event) => {
    const keep = event.target.closest('[data-save-view]');
    const pin = event.target.closest('[data-pin]');
    if (keep) {
      saveView(keep);
    } else if (pin) {
      save(`/views/${pin.dataset.pin}/pin`, { pinned: pin.dataset.pinned !== 'true' });
    }
  });
}
