// "Bring in": finds definitions, parts and requirements of the project and its libraries, to be dragged onto the drawing or
// taken with Enter. A definition dropped into a part is used there, a requirement becomes a link.
import { at, branch, postEdit } from '../frame/server.js';
import { refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { save } from '../frame/saving.js';
import { element } from '../frame/dom.js';
import { makeLinks } from '../links/picker.js';
import { extent, hasUses } from './extent.js';
import { showAlso } from './clipboard.js';

const TYPED_FOR = 120;
const THRESHOLD = 4;

async function found(text) {
  const response = await fetch(at(`drawing/offers.json?${new URLSearchParams({ text })}`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  return response?.ok ? response.json() : [];
}

function option({ id, use, name, family, text, source }, where) {
  return element(
    'div',
    {
      role: 'option',
      tabIndex: -1,
      className: 'offer',
      title: text,
      data: { id, kind: use, ...(source && { source: JSON.stringify(source) }) },
    },
    element('span', { className: `kind ${family}` }),
    element('span', { className: 'label', textContent: name }),
    element('small', { className: 'quiet', textContent: where }),
  );
}

/** A definition of another project: its library is used first, at its newest baseline. */
const isUsed = ({ dataset }) => !dataset.source || save('/libraries/use', JSON.parse(dataset.source));

/** Everything there is, a heading for each package. */
const outline = (offers) =>
  [...Map.groupBy(offers, ({ where }) => where)].map(([where, each]) =>
    element(
      'details',
      { className: 'offer-package' },
      element('summary', { textContent: where || 'at the top' }),
      ...each.map((offer) => option(offer, '')),
    ),
  );

class Bringing {
  constructor(drawing) {
    this.drawing = drawing;
    this.panel = document.getElementById('bring');
    this.input = this.panel.querySelector('input');
    this.list = this.panel.querySelector('[role="listbox"]');
    let timer;
    this.input.addEventListener('input', () => {
      clearTimeout(timer);
      timer = setTimeout(() => this.fill(), TYPED_FOR);
    });
    this.panel.addEventListener('keydown', (event) => this.onKey(event));
    this.list.addEventListener('pointerdown', (event) => this.press(event));
    this.list.addEventListener('dblclick', (event) => this.take(event.target.closest('[role="option"]')));
    this.panel.querySelector('[data-close]').addEventListener('click', () => this.toggle());
    document.addEventListener('click', (event) => event.target.closest('[data-bring]') && this.toggle());
  }

  toggle() {
    this.panel.hidden = !this.panel.hidden;
    if (!this.panel.hidden) {
      this.fill();
      this.input.focus();
    }
  }

  async fill() {
    const text = this.input.value.trim();
    const offers = await found(text);
    if (text !== this.input.value.trim()) {
      return;
    }
    this.list.replaceChildren(...(text ? offers.map((offer) => option(offer, offer.where)) : outline(offers)));
    this.panel.querySelector('[role="status"]').textContent = offers.length
      ? 'Drag onto a box, or press Enter for the chosen box.'
      : 'Nothing matches.';
  }

  onKey(event) {
    const options = [...this.list.querySelectorAll('[role="option"]')].filter((each) => each.offsetParent);
    const index = options.indexOf(event.target);
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const next = options[index + (event.key === 'ArrowDown' ? 1 : -1)];
      (next ?? this.input).focus();
    } else if (event.key === 'Enter' && options.length) {
      event.preventDefault();
      this.take(options[Math.max(0, index)]);
    } else if (event.key === 'Escape') {
      this.toggle();
    }
  }

  /** Drags an offer; its name follows the pointer. */
  press(event) {
    const option = event.target.closest('[role="option"]');
    if (!option || event.button !== 0) {
      return;
    }
    event.preventDefault();
    option.focus();
    const { canvas } = this.drawing;
    let ghost = null;
    const onMove = (moved) => {
      if (!ghost && Math.hypot(moved.clientX - event.clientX, moved.clientY - event.clientY) < THRESHOLD) {
        return;
      }
      ghost ??= document.body.appendChild(
        element('div', { className: 'ghost', textContent: option.querySelector('.label').textContent }),
      );
      ghost.style.left = `${moved.clientX + 10}px`;
      ghost.style.top = `${moved.clientY + 8}px`;
      canvas.sheet.querySelectorAll('.into').forEach((node) => node.classList.remove('into'));
      canvas.scene.nodeOf(canvas.under(moved, '.box'))?.classList.add('into');
    };
    const leave = () => {
      removeEventListener('pointermove', onMove);
      removeEventListener('pointerup', onUp);
      removeEventListener('keydown', onKey, true);
      ghost?.remove();
      canvas.sheet.querySelectorAll('.into').forEach((node) => node.classList.remove('into'));
    };
    const onUp = (up) => {
      const isDragged = ghost !== null;
      leave();
      const row = document.elementFromPoint(up.clientX, up.clientY)?.closest('[data-step]');
      if (isDragged && row && option.dataset.kind === 'requirement') {
        this.link(row.dataset.step, option.dataset.id);
      } else if (isDragged && canvas.host.contains(document.elementFromPoint(up.clientX, up.clientY))) {
        this.drop(option, canvas.under(up, '.box'), canvas.point(up));
      }
    };
    const onKey = (key) => {
      if (key.key === 'Escape') {
        key.stopPropagation();
        leave();
      }
    };
    addEventListener('pointermove', onMove);
    addEventListener('pointerup', onUp);
    addEventListener('keydown', onKey, true);
  }

  /** The story that a step stands in links a requirement to it. */
  link(step, requirement) {
    document.dispatchEvent(new CustomEvent('pyrite:requirement-dropped', { detail: { step, requirement } }));
  }

  take(option) {
    const { canvas } = this.drawing;
    return option && this.drop(option, canvas.scene.boxOf(canvas.current)?.key ?? null, null);
  }

  /** @param key of the box it is dropped on; null for the ground */
  async drop(option, key, point) {
    const { canvas, form } = this.drawing;
    const { scene, data } = canvas;
    const top = data.boxes.find((box) => box.parent === '');
    const box = scene.boxes.get(key) ?? (form !== 'GENERAL' ? top : null);
    const { id, kind } = option.dataset;
    if (!box) {
      await showAlso(this.drawing, [id]);
      return;
    }
    if (kind === 'requirement' && form === 'STORY') {
      this.link(box.id, id);
      return;
    }
    if (kind === 'requirement') {
      const refused = await makeLinks('satisfy', [box.id], [id]);
      if (refused) {
        say(refused);
      }
      return;
    }
    if (!(await isUsed(option))) {
      return;
    }
    const { status, body } = await postEdit(`${branch()}/drawing/use`, (base) => ({
      definition: id,
      into: hasUses() ? box.key : box.id,
      extent: extent(),
      base,
    }));
    if (status !== 200) {
      say(`Not added: ${body.message}`);
      return;
    }
    if (point && box.node) {
      const rect = scene.absolute(scene.boxes.get(box.key));
      this.drawing.expect(`${box.key}.${body.made[0]}`, point[0] - rect.x, point[1] - rect.y);
    }
    say(`${body.message} · ${body.revision}`, true);
    await refresh();
  }
}

export function startBringing(drawing) {
  if (document.getElementById('bring')) {
    new Bringing(drawing);
  }
}
