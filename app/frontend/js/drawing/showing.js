// What a view shows: which compartments and relations, and how deep parts are open when somebody comes to it.
import { element } from '../frame/dom.js';
import { at } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { ask, common } from '../grid/dialog.js';
import { forgetOpen } from './opened.js';

const DEEPEST = 4;

const box = ({ name, isShown }) => element('input', { type: 'checkbox', value: name, checked: isShown });
const row = (input) => element('label', { className: 'showing-choice' }, input, input.value);

export async function openShowing(drawing) {
  const response = await fetch(at(`element/${drawing.element}/drawing/showing.json?form=${drawing.form}`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  if (!response?.ok) {
    say('The server cannot be reached; try again.');
    return;
  }
  const { compartments, relations, depth } = await response.json();
  const boxes = [...compartments, ...relations].map(box);
  const parts = (from, count) => element('div', { className: 'showing-choices' }, ...boxes.slice(from, count).map(row));
  const deep = element(
    'select',
    {},
    ...Array.from({ length: DEEPEST + 1 }, (_, levels) =>
      element('option', {
        value: String(levels),
        textContent: levels ? `${levels} ${levels === 1 ? 'level' : 'levels'} open` : 'as they were left',
        selected: levels === depth,
      }),
    ),
  );
  const dialog = common();
  const asked = ask(dialog, 'Contents of this view', [{ name: 'depth', label: 'Parts within', input: deep }], 'Show');
  const heading = (words) => element('p', { className: 'small quiet', textContent: words });
  dialog
    .querySelector('h2')
    .after(
      ...(compartments.length ? [heading('In boxes'), parts(0, compartments.length)] : []),
      ...(relations.length ? [heading('Lines'), parts(compartments.length, boxes.length)] : []),
    );
  const answer = await asked;
  if (answer) {
    const without = boxes.filter(({ checked }) => !checked).map(({ value }) => value);
    forgetOpen();
    // Boxes that lose lines get smaller.
    drawing.canvas.data.boxes.forEach(({ key }) => drawing.turned.add(key));
    await drawing.save('showing', { without, depth: Number(answer.depth) });
  }
}
