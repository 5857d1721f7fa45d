// Quick add on a drawing: one line of the notation, with the names that fit, for the chosen box or for what is drawn.
import { at, branch, postEdit } from '../frame/server.js';
import { refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { refusal } from '../frame/saving.js';
import { extent, hasUses } from './extent.js';
import { element } from '../frame/dom.js';

const TYPED_FOR = 120;
const MOST = 8;
const SIGNS = /[\p{L}\p{N}_']*$/u;

export async function proposals(owner, text, at) {
  const { status, body } = await postEdit(`${branch()}/element/${owner}/members/complete`, (base) => ({
    text,
    at,
    base,
  }));
  return status === 200 ? body.proposals : [];
}

/**
 * A field over the drawing; Enter hands what was typed to send, which gives the sentence that refuses it.
 *
 * @param whole whether a proposal takes the place of all that was typed
 */
export function openField({ host, rect, label, hint, value, complete, whole, send, back }) {
  host.querySelector('.over-field')?.remove();
  const input = element('input', { className: 'mono', value, autocomplete: 'off', spellcheck: false, aria: { label } });
  const list = element('ul', { className: 'proposals', role: 'listbox', aria: { label: 'Names that fit' } });
  const fault = element('p', { className: 'fault', role: 'alert' });
  const field = element(
    'div',
    { className: 'over-field on-canvas' },
    element('strong', { textContent: label }),
    input,
    list,
    fault,
    element('p', { className: 'hint', textContent: hint }),
  );
  const close = () => {
    field.remove();
    back?.()?.focus({ preventScroll: true });
  };
  let chosen = -1;
  const mark = () => [...list.children].forEach((each, i) => each.setAttribute('aria-selected', String(i === chosen)));
  const take = (name) => {
    const at = input.selectionStart;
    const typed = whole ? '' : input.value.slice(0, at).replace(SIGNS, '');
    input.value = typed + name + (whole ? '' : input.value.slice(at));
    input.setSelectionRange(typed.length + name.length, typed.length + name.length);
    list.replaceChildren();
    chosen = -1;
    input.focus();
  };
  let timer;
  input.addEventListener('input', () => {
    clearTimeout(timer);
    timer = setTimeout(async () => {
      const at = input.selectionStart;
      const typed = input.value.slice(0, at).match(SIGNS)[0];
      const found =
        complete && (whole || typed || /[:.]\s*$/.test(input.value.slice(0, at)))
          ? await complete(input.value, at)
          : [];
      chosen = -1;
      list.replaceChildren(
        ...found.slice(0, MOST).map(({ name, detail }) => {
          const option = element(
            'li',
            { role: 'option' },
            name,
            element('small', { className: 'quiet', textContent: ` ${detail}` }),
          );
          option.addEventListener('pointerdown', (event) => {
            event.preventDefault();
            take(name);
          });
          option.dataset.name = name;
          return option;
        }),
      );
    }, TYPED_FOR);
  });
  input.addEventListener('keydown', async (event) => {
    const count = list.children.length;
    if (event.key === 'Escape') {
      event.preventDefault();
      event.stopPropagation();
      close();
    } else if (count && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      chosen = (chosen + (event.key === 'ArrowDown' ? 1 : -1) + count) % count;
      mark();
    } else if (count && (event.key === 'Tab' || (event.key === 'Enter' && chosen >= 0))) {
      event.preventDefault();
      take(list.children[Math.max(0, chosen)].dataset.name);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      clearTimeout(timer);
      fault.textContent = await send(input.value);
      if (!fault.textContent) {
        close();
      }
    }
  });
  host.append(field);
  const frame = host.getBoundingClientRect();
  field.style.left = `${Math.max(8, Math.min(rect.left - frame.left, frame.width - field.offsetWidth - 8))}px`;
  field.style.top = `${Math.max(8, Math.min(rect.bottom - frame.top + 8, frame.height - field.offsetHeight - 120))}px`;
  input.focus();
  input.select();
}

async function post(address, data, drawing) {
  const { status, body } = await postEdit(`${branch()}${address}`, (base) => ({ ...data, base }));
  if (status !== 200) {
    return body.message;
  }
  say(body.saved ? `${body.message} · ${body.revision}` : body.message, body.saved);
  await refresh();
  await drawing.canvas.load();
  return '';
}

const HINTS = {
  STATE_TRANSITION: 'For instance state waiting, or entry assign speed := 0 [m/s]. Enter adds it, Escape cancels.',
  ACTION_FLOW:
    'For instance action warn : TimedAction { attribute :>> duration = 20 [s]; }, or fork both. Enter adds it, Escape cancels.',
};
const HINT = 'For instance part pump : Pump, or port oil : ~OilPort. Enter adds it, Tab takes a name, Escape cancels.';

/** Whether a drawing shows what happens: its lines are transitions or successions. */
export const isBehavior = (form) => form in HINTS;

/** Asks for what a line between two boxes says. */
export function openLead(drawing, from, to) {
  const { canvas } = drawing;
  const [one, other] = [from, to].map((key) => canvas.scene.boxes.get(key));
  openField({
    host: canvas.host,
    rect: other.node.getBoundingClientRect(),
    label: `From ${one.title || one.keyword} to ${other.title || other.keyword}`,
    hint:
      drawing.form === 'STATE_TRANSITION'
        ? 'When, under which condition, with what effect: accept Order via desk if speed > 0 [m/s] ' +
          'do send new Done() via desk. Empty: once it is done. Enter draws it.'
        : 'Empty: comes behind it. if x > 1: only then. flow alarm to warning: what goes out of one comes into the other. Enter draws it.',
    value: '',
    send: (text) => behaves('/drawing/lead', { from, to, text }, drawing),
    back: () => canvas.scene.nodeOf(canvas.current),
  });
}

/** Changes what a line says. */
export async function openSaying(drawing) {
  const { canvas } = drawing;
  const line = canvas.scene.lines.get(canvas.current);
  if (!line?.id) {
    say('This line follows from the order in the text; change it there.');
    return;
  }
  const response = await fetch(at(`element/${line.id}/drawing/says.json`), {
    headers: { 'X-Requested-With': 'fetch' },
  });
  const body = await response.json();
  if (!response.ok) {
    say(body.message);
    return;
  }
  openField({
    host: canvas.host,
    rect: canvas.scene.nodeOf(line.key).getBoundingClientRect(),
    label: 'What this line says',
    hint:
      drawing.form === 'STATE_TRANSITION'
        ? 'Trigger, condition and effect, for instance accept Stop if x > 0 do assign x := 0. Enter saves, Escape cancels.'
        : 'A condition, for instance if x > 1. Enter saves, Escape cancels.',
    value: body.text,
    send: (text) => behaves(`/element/${line.id}/drawing/say`, { shown: line.from.split('.')[0], text }, drawing),
    back: () => canvas.scene.nodeOf(canvas.current),
  });
}

async function behaves(address, data, drawing) {
  const message = await refusal(address, data);
  if (!message) {
    await drawing.canvas.load();
  }
  return message;
}

/** A box by its name and by how far an edit of it reaches. */
function called(box) {
  if (!hasUses() || !box.parent) {
    return box.title;
  }
  return extent() === 'USE' ? `${box.title} in this use` : `the definition of ${box.title}`;
}

/** Where a line of notation goes that is typed for a box. */
function adding(drawing, box, id, text) {
  if (!hasUses() || !box) {
    return post(`/element/${id}/members`, { text }, drawing);
  }
  return extent() === 'USE'
    ? post('/use/members', { in: box.key, text }, drawing)
    : post(`/element/${id}/definition/members`, { text }, drawing);
}

/** Where something is added: into the chosen box, else into what is drawn. */
function goal(drawing) {
  const { scene, current, data } = drawing.canvas;
  const box = scene.boxOf(current);
  const top = data.boxes.find((each) => each.parent === '');
  if (box) {
    return { id: box.id, name: called(box), rect: box.node.getBoundingClientRect() };
  }
  const isWhole = drawing.form !== 'GENERAL' && !isBehavior(drawing.form) && top;
  const frame = drawing.canvas.host.getBoundingClientRect();
  return {
    id: isWhole ? top.id : drawing.canvas.host.dataset.into,
    name: isWhole ? top.title : drawing.canvas.host.dataset.intoName,
    rect: { left: frame.left + 40, bottom: frame.top + 32 },
  };
}

export function openAdd(drawing) {
  const { canvas } = drawing;
  const { id, name, rect } = goal(drawing);
  const box = canvas.scene.boxOf(canvas.current);
  openField({
    host: canvas.host,
    rect,
    label: `Add to ${name}`,
    hint: HINTS[drawing.form] ?? HINT,
    value: '',
    complete: (text, at) => proposals(id, text, at),
    send: (text) =>
      isBehavior(drawing.form) && box
        ? behaves('/drawing/within', { into: box.key, text }, drawing)
        : adding(drawing, box, id, text),
    back: () => canvas.scene.nodeOf(canvas.current),
  });
}

export function openRename(drawing) {
  const { canvas } = drawing;
  const thing = canvas.scene.ports.get(canvas.current)?.port ?? canvas.scene.boxes.get(canvas.current);
  if (!thing) {
    return;
  }
  const inUse = hasUses() && extent() === 'USE' && thing.key.includes('.');
  const name = (thing.name ?? thing.title).replace(/ ?[[:].*$/, '').replace(/^<.*> /, '');
  openField({
    host: canvas.host,
    rect: canvas.scene.nodeOf(canvas.current).getBoundingClientRect(),
    label: inUse ? `Rename ${name} in this use` : `Rename ${name}`,
    hint: inUse
      ? 'What comes from a definition keeps its name there. Enter saves, Escape cancels.'
      : 'Every reference follows. Enter saves, Escape cancels.',
    value: name,
    send: (text) =>
      inUse
        ? post('/use/name', { in: thing.key, text }, drawing)
        : post(`/element/${thing.id}/name`, { text }, drawing),
    back: () => canvas.scene.nodeOf(canvas.current),
  });
}
