// The menu of a step in a story.
import { element } from '../frame/dom.js';
import { ask, common } from '../grid/dialog.js';
import { askRequirements } from './step-requirements.js';
import { askTurning } from './turning.js';

/** What can be done with a step of a story. */
export function stepMenu(story, { step }) {
  const way = story.wayOf(step.id);
  const place = way.steps.findIndex(({ id }) => id === step.id);
  const start = (more) => {
    story.begin({ step: step.id }, more);
    story.show();
  };
  const items = [
    { label: 'Requirements…', run: () => askRequirements(story, [step.id]) },
    ...step.requirements.map(({ id, label }) => ({
      label: `No longer linked to ${label}`,
      run: () => story.act('link', { step: step.id, requirement: id, linked: false }),
    })),
  ];
  if (step.own && step.kind === 'action' && !step.became) {
    items.push({ label: 'Turn into…', run: () => askTurning(story, [step.id]) });
  }
  if (step.own) {
    items.unshift(
      { label: 'Add a step behind it', key: 'Enter', run: () => start() },
      { label: 'Add an alternative', key: 'Tab', run: () => story.indent(story.begin({ step: step.id })) },
      { label: 'Add a step at the same time', run: () => start({ mode: 'meanwhile' }) },
      { label: 'Add an interrupting event…', run: () => askCut(story, way, step) },
      null,
    );
    items.push(
      null,
      { label: 'Move up', key: 'Alt ↑', run: () => story.move(step.id, -1) },
      { label: 'Move down', key: 'Alt ↓', run: () => story.move(step.id, 1) },
      ...(place > 0
        ? [{ label: 'Make it an alternative of the step above', key: 'Tab', run: () => story.branch(step.id) }]
        : []),
      ...(way.leaves
        ? [{ label: `Take it back behind the step above`, key: 'Shift Tab', run: () => story.unbranch(step.id) }]
        : []),
      { label: 'Remove', run: () => story.act('remove', { step: step.id }) },
    );
  }
  return items;
}

async function askCut(story, way, step) {
  const from = way.steps.findIndex(({ id }) => id === step.id);
  const last = element(
    'select',
    {},
    ...way.steps
      .slice(from)
      .map(({ id, label, text }) => element('option', { value: id, textContent: `${label}: ${text.slice(0, 60)}` })),
  );
  const event = element('input', { required: true, maxLength: 4000, autocomplete: 'off' });
  const answer = await ask(
    common(),
    `Event that interrupts from step ${step.label}`,
    [
      { name: 'last', label: 'Up to step', input: last },
      { name: 'event', label: 'Whenever this happens', input: event },
    ],
    'Add the event',
  );
  if (answer) {
    story.act('cut-short', { first: step.id, ...answer });
  }
}
