// What goes in and out of the functions of a turned story: proposed, and made when somebody agrees.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { refusal } from '../frame/saving.js';
import { openForm } from '../grid/dialog.js';

export async function askFlows(story) {
  const response = await fetch(at(`element/${story.useCase}/story/flows.json`), {
    headers: { 'X-Requested-With': 'fetch' },
  });
  if (!response.ok) {
    return;
  }
  const rows = (await response.json()).map((flow) => ({
    flow,
    box: element('input', { type: 'checkbox', checked: true }),
  }));
  openForm(
    'Create flows',
    'Create them',
    [
      element('h2', { textContent: 'What do the functions take and give?' }),
      element(
        'div',
        { className: 'from-steps' },
        ...rows.map(({ flow, box }) =>
          element(
            'label',
            { className: 'plain-choice' },
            box,
            element('span', {}, element('strong', { textContent: flow.words }), ` · ${flow.step}`),
          ),
        ),
      ),
    ],
    async () => {
      const flows = rows
        .filter(({ box }) => box.checked)
        .map(({ flow: { event, function: to } }) => ({ event, function: to }));
      return flows.length ? refusal(`/element/${story.useCase}/story/flows`, { flows }) : 'Choose at least one flow.';
    },
  );
}
