// Requirements from steps: proposed from their texts, edited before they are made; those there are that say much the same
// can be linked instead.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { refusal } from '../frame/saving.js';
import { openForm } from '../grid/dialog.js';

const KEPT = 'pyrite.specification';

/** @param steps the ids of the steps; none for all that have no requirement */
export async function askRequirements(story, steps) {
  const response = await fetch(
    at(`element/${story.useCase}/story/proposals.json?${new URLSearchParams({ steps: steps.join(',') })}`),
    { headers: { 'X-Requested-With': 'fetch' } },
  );
  if (!response.ok) {
    return;
  }
  const { specifications, proposals } = await response.json();
  const place = element(
    'select',
    {},
    ...specifications.map(({ id, label }) => element('option', { value: id, textContent: label })),
  );
  const kept = localStorage.getItem(KEPT);
  if (specifications.some(({ id }) => id === kept)) {
    place.value = kept;
  }
  const rows = proposals.map((proposal) => new Row(proposal, proposals.length === 1));
  openForm(
    'Requirements from steps',
    'Create requirements',
    [
      element('h2', {
        textContent: rows.length === 1 ? `Requirement from step ${proposals[0].label}` : 'Requirements from steps',
      }),
      element('label', {}, 'New ones into', place),
      element('div', { className: 'from-steps' }, ...rows.map(({ node }) => node)),
    ],
    async () => {
      const wishes = rows.map((row) => row.wish).filter(Boolean);
      if (!wishes.length) {
        return 'Choose at least one step.';
      }
      localStorage.setItem(KEPT, place.value);
      return refusal(`/element/${story.useCase}/story/requirements`, { specification: place.value || null, wishes });
    },
  );
}

/** One step with the requirement proposed for it, and those that say much the same. */
class Row {
  constructor({ step, label, text, proposed, similar }, isAlone) {
    this.step = step;
    this.box = element('input', { type: 'checkbox', checked: true, aria: { label: `Step ${label}` } });
    this.field = element('textarea', {
      value: proposed,
      rows: 2,
      maxLength: 4000,
      aria: { label: `Requirement from step ${label}` },
    });
    const name = `way-${step}`;
    const choice = (value, isChosen, ...words) => {
      const radio = element('input', { type: 'radio', name, value, checked: isChosen });
      return element('label', { className: 'plain-choice' }, radio, ...words);
    };
    this.node = element(
      'fieldset',
      { className: 'from-step' },
      element(
        'legend',
        {},
        ...(isAlone ? [] : [this.box]),
        element('span', { className: 'mono', textContent: label }),
        element('span', { textContent: text }),
      ),
      choice('', true, 'A new one'),
      this.field,
      ...similar.map((each) =>
        choice(
          each.id,
          false,
          element('span', { className: 'tag', textContent: each.label }),
          element('span', { textContent: each.text }),
          element('small', { className: 'quiet', textContent: `${each.percent} % alike` }),
        ),
      ),
    );
    this.field.addEventListener('focus', () => {
      this.node.querySelector('input[type="radio"]').checked = true;
    });
  }

  get wish() {
    if (!this.box.checked) {
      return null;
    }
    const existing = this.node.querySelector('input[type="radio"]:checked').value;
    return { step: this.step, text: this.field.value.trim(), existing: existing || null };
  }
}

/** A requirement dragged onto a step, in the list or on the drawing, is linked to it. */
export function dropRequirement(story) {
  document.addEventListener('pyrite:requirement-dropped', ({ detail }) => {
    story.act('link', { step: detail.step, requirement: detail.requirement, linked: true });
  });
}
