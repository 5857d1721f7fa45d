// Help with the wording: findings under the text, while it is written and on the requirement's page; waiving one, and splitting.
import { at, branch, postEdit } from '../frame/server.js';
import { refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { save } from '../frame/saving.js';
import { element } from '../frame/dom.js';
import { ask } from '../grid/dialog.js';

const TYPED_FOR = 350;

async function findings(id, text) {
  const response = await fetch(at(`element/${id}/wording.json?${new URLSearchParams({ text })}`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  return response?.ok ? response.json() : [];
}

/** Findings of one rule together: several places are one question. */
const byRule = (found) => [...Map.groupBy(found, ({ rule }) => rule).values()];
const quoted = (places) =>
  [...new Set(places.map(({ words }) => words).filter(Boolean))].map((words) => `“${words}”`).join(', ');

function lines(found) {
  return byRule(found)
    .filter((places) => !places[0].waived)
    .map((places) =>
      element('p', { className: 'finding' }, element('strong', { textContent: quoted(places) }), ` ${places[0].why}`),
    );
}

/** Shows findings under a field while somebody writes in it. */
export function liveWording(field, id, under) {
  const host = element('div', { className: 'findings', role: 'status' });
  under.append(host);
  let timer;
  const look = async () => {
    const text = field.value;
    const found = await findings(id, text);
    if (field.value === text) {
      host.replaceChildren(...lines(found));
    }
  };
  field.addEventListener('input', () => {
    clearTimeout(timer);
    timer = setTimeout(look, TYPED_FOR);
  });
  look();
}

function button(text, label, run) {
  const made = element('button', { type: 'button', className: 'act small-act', textContent: text, aria: { label } });
  made.addEventListener('click', run);
  return made;
}

async function waive(id, rule) {
  const answer = await ask(
    document.getElementById('split-dialog'),
    'Waive the finding',
    [
      {
        name: 'reason',
        label: 'Reason',
        input: element('input', { required: true, autocomplete: 'off' }),
      },
    ],
    'Waive',
  );
  if (answer?.reason) {
    save(`/element/${id}/waive`, { rule, reason: answer.reason });
  }
}

/** Asks for the parts and which links each keeps. */
async function split(id) {
  const { parts, links } = await (
    await fetch(at(`element/${id}/split.json`), { headers: { 'X-Requested-With': 'fetch' } })
  ).json();
  const dialog = document.getElementById('split-dialog');
  const fault = element('p', { className: 'fault', role: 'alert' });
  const list = element('div', { className: 'split-parts' });
  const add = (text) =>
    list.append(
      element(
        'fieldset',
        { className: 'split-part' },
        element('textarea', { value: text, rows: 2, aria: { label: `Part ${list.children.length + 1}` } }),
        ...links.map(({ key, words }) =>
          element('label', {}, element('input', { type: 'checkbox', value: key, checked: true }), words),
        ),
      ),
    );
  parts.forEach(add);
  const go = button('Split', 'Split', async () => {
    const wanted = [...list.children]
      .map((part) => ({
        text: part.querySelector('textarea').value,
        links: [...part.querySelectorAll('input:checked')].map(({ value }) => value),
      }))
      .filter(({ text }) => text.trim());
    const { status, body } = await postEdit(`${branch()}/element/${id}/split`, (base) => ({ parts: wanted, base }));
    if (status === 200 && body.saved) {
      dialog.close();
      say(`${body.message} · ${body.revision}`, true);
      await refresh();
    } else {
      fault.textContent = wanted.length < 2 ? 'Write at least two parts.' : body.message;
    }
  });
  go.classList.add('primary');
  dialog.replaceChildren(
    element('h2', { textContent: 'Split the requirement' }),
    element('p', {
      className: 'quiet small',
      textContent:
        'The first part stays this requirement; the others stand behind it with ids of their own. Choose the links each keeps.',
    }),
    list,
    fault,
    element(
      'div',
      { className: 'flex gap-2' },
      go,
      button('Another part', 'Another part', () => add('')),
      button('Cancel', 'Cancel', () => dialog.close()),
    ),
  );
  dialog.showModal();
}

export function startWording() {
  document.addEventListener('click', async ({ target }) => {
    const pressed = target.closest('#wording button');
    if (pressed) {
      const id = pressed.closest('#wording').dataset.element;
      const { waive: rule, unwaive } = pressed.dataset;
      if (rule) {
        waive(id, rule);
      } else if (unwaive) {
        save(`/element/${id}/waive`, { rule: unwaive, reason: '' });
      } else {
        split(id);
      }
    }
    const note = target.closest('[data-note]');
    if (note) {
      const dialog =
        document.getElementById('split-dialog') ??
        document.body.appendChild(element('dialog', { className: 'grid-dialog', id: 'split-dialog' }));
      const answer = await ask(
        dialog,
        'Note on the link',
        [{ name: 'text', label: 'Note', input: element('input', { value: note.dataset.text, autocomplete: 'off' }) }],
        'Save',
      );
      if (answer) {
        save(`/element/${note.dataset.carrier}/text`, { text: answer.text });
      }
    }
  });
}
