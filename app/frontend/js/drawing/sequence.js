// What gestures on a sequence drawing mean: a line from lifeline to lifeline is a message, where something stands says when it
// happens. Lifelines can be put in another order; they are parts of the model and stay in it.
import { at } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { refusal, saved } from '../frame/saving.js';
import { asPng, asSvg, download, print } from '../canvas/export.js';
import { beginJoin } from '../canvas/keyboard.js';
import { openMenu } from '../canvas/menu.js';
import { openField, proposals } from './add.js';

const ITEM = 'item x : ';

const address = (drawing, act) => `/element/${drawing.element}/sequence/${act}`;
const save = (drawing, act, data) => saved(address(drawing, act), (base) => ({ ...data, base }));

async function json(path) {
  const response = await fetch(at(path), { headers: { 'X-Requested-With': 'fetch' } });
  const body = await response.json();
  if (!response.ok) {
    say(body.message);
  }
  return response.ok ? body : null;
}

/** The lifeline that something stands on. */
function lifelineOf({ scene }, key) {
  const box = scene.boxOf(key);
  return box?.parent ? scene.boxes.get(box.parent) : box;
}

/** The lifeline at a point of the drawing. */
function lifelineAt({ scene }, [x]) {
  const far = (box) => Math.abs(box.x + box.width / 2 - x);
  return [...scene.boxes.values()].filter((box) => !box.parent).sort((one, other) => far(one) - far(other))[0];
}

/** Above a lifeline's head a field would be far from what it is about; it opens below it. */
function headOf(box) {
  const { left, top } = box.node.getBoundingClientRect();
  return { left, bottom: top + 44 };
}

function ask(drawing, box, rest) {
  openField({ host: drawing.canvas.host, rect: headOf(box), value: '', ...rest });
}

function connect(drawing, from, to, point) {
  const { canvas } = drawing;
  const one = lifelineOf(canvas, from);
  const other = point ? lifelineAt(canvas, point) : lifelineOf(canvas, to);
  if (!one || !other) {
    say('Not drawn: a message goes from one lifeline to another.');
    return;
  }
  ask(drawing, other, {
    label: `Message from ${one.title} to ${other.title}`,
    hint: 'What is sent, perhaps with its content: Order(level = 3 [m]). Enter draws it, Escape cancels.',
    complete: (text, cursor) => proposals(drawing.element, ITEM + text, ITEM.length + cursor),
    send: (text) =>
      refusal(address(drawing, 'message'), { from: one.key, to: other.key, text, height: point?.[1] ?? null }),
    back: () => one.node,
  });
}

/** Steps get another instant, lifelines another order. */
async function arrange(drawing, changes) {
  const { scene } = drawing.canvas;
  const moved = changes.filter(({ key, at: place }) => place && scene.boxes.has(key));
  for (const { key, at: place } of moved.filter(({ key: each }) => scene.boxes.get(each).parent)) {
    const box = scene.boxes.get(key);
    await save(drawing, 'place', { member: box.id, height: place[1] + box.height / 2 });
  }
  if (moved.some(({ key }) => !scene.boxes.get(key).parent)) {
    const lifelines = [...scene.boxes.values()].filter((box) => !box.parent);
    await drawing.save('arrange', {
      changes: lifelines.map((box) => ({ key: box.key, at: [Math.round(box.x), 0] })),
      bends: [],
    });
  }
  await drawing.canvas.load();
}

async function reend(drawing, line, end, to) {
  const goal = lifelineOf(drawing.canvas, to);
  if (!goal) {
    say('Not reconnected: a message ends at a lifeline.');
    return;
  }
  await save(drawing, 'reend', { member: line.id, to: goal.key, isSource: end === 'from' });
  await drawing.canvas.load();
}

async function bend(drawing, line, via) {
  await save(drawing, 'place', { member: line.id, height: via[0][1] });
  await drawing.canvas.load();
}

export const sequenceGestures = (drawing) => ({
  arrange: (changes) => arrange(drawing, changes),
  bend: (line, via) => bend(drawing, line, via),
  connect: (from, to, point) => connect(drawing, from, to, point),
  reend: (line, end, to) => reend(drawing, line, end, to),
  portElsewhere: undefined,
});

const hasWords = (path, text) => path.toLowerCase().includes(text.trim().toLowerCase());

/** A lifeline for a part, or what happens on the chosen one. */
async function add(drawing) {
  const { canvas } = drawing;
  const chosen = canvas.current && lifelineOf(canvas, canvas.current);
  if (chosen) {
    const known = await json(
      `element/${drawing.element}/sequence/happenings.json?${new URLSearchParams({ on: chosen.key })}`,
    );
    ask(drawing, chosen, {
      label: `What happens on ${chosen.title}`,
      hint: 'modes.closing: it begins. modes.closing ends. level := 3 [m]: set from outside. Enter adds it, Escape cancels.',
      whole: true,
      complete: (text) => (known ?? []).filter((path) => hasWords(path, text)).map((name) => ({ name, detail: '' })),
      send: (text) => refusal(address(drawing, 'event'), { on: chosen.key, text }),
      back: () => chosen.node,
    });
    return;
  }
  const parts = await json(`element/${drawing.element}/sequence/parts.json`);
  const first = canvas.scene.boxes.values().next().value;
  if (!parts || !first) {
    return;
  }
  ask(drawing, first, {
    label: 'Add a lifeline',
    hint: 'A part of the system, for instance one that gets a message. Enter adds it, Escape cancels.',
    whole: true,
    complete: (text) =>
      parts.filter(({ path }) => hasWords(path, text)).map(({ path }) => ({ name: path, detail: '' })),
    send: (text) => addLifeline(drawing, parts, text.trim()),
    back: () => first.node,
  });
}

async function addLifeline(drawing, parts, path) {
  const part = parts.find((each) => each.path === path);
  if (!part) {
    return `the system has no part '${path}'; it has ${parts
      .slice(0, 6)
      .map((each) => each.path)
      .join(', ')}${parts.length > 6 ? ' …' : ''}`;
  }
  const { data } = drawing.canvas;
  const done = await drawing.save('arrange', {
    changes: [{ key: part.key, at: [Math.round(data.width + 60), 0], hidden: false }],
    bends: [],
  });
  await drawing.canvas.load();
  return done ? '' : 'it could not be added';
}

async function sayAnew(drawing) {
  const { canvas } = drawing;
  const { current, scene } = canvas;
  const thing = scene.lines.get(current) ?? scene.boxes.get(current);
  if (!thing || (thing.parent === '' && !scene.lines.has(current))) {
    say('Choose a message or an event; the name of a lifeline is that of its part.');
    return;
  }
  const says = await json(`element/${drawing.element}/sequence/says.json?member=${thing.id}`);
  if (says) {
    ask(drawing, lifelineOf(canvas, thing.to ?? thing.key), {
      label: 'Content',
      hint: 'Enter saves, Escape cancels.',
      value: says.text,
      send: (text) => refusal(address(drawing, 'say'), { member: thing.id, text }),
      back: () => scene.nodeOf(canvas.current),
    });
  }
}

/** Steps go out of the recording; a lifeline without any out of the view. */
async function remove(drawing) {
  const { scene, chosen } = drawing.canvas;
  const keys = [...chosen];
  const steps = keys.filter((key) => scene.lines.has(key) || scene.boxes.get(key)?.parent);
  if (steps.length) {
    const members = steps.map((key) => (scene.lines.get(key) ?? scene.boxes.get(key)).id);
    await save(drawing, 'remove', { members });
  }
  const lifelines = keys.filter((key) => scene.boxes.get(key)?.parent === '');
  const isUsed = (key) =>
    scene.inside(scene.boxes.get(key)).length ||
    [...scene.lines.values()].some(({ from, to }) => from === key || to === key);
  if (lifelines.some(isUsed)) {
    say('A lifeline stays as long as something happens on it; remove its messages and events first.');
  } else if (lifelines.length) {
    await drawing.save('arrange', { changes: lifelines.map((key) => ({ key, hidden: true })), bends: [] });
  }
  await drawing.canvas.load();
}

export function sequenceActs(drawing) {
  const { canvas } = drawing;
  const more = [
    {
      label: 'Save as SVG',
      run: async () => download(new Blob([await asSvg(canvas)], { type: 'image/svg+xml' }), 'sequence.svg'),
    },
    { label: 'Save as PNG', run: async () => download(await asPng(canvas), 'sequence.png') },
    { label: 'Print', run: () => print(canvas) },
  ];
  const items = () => {
    const isLine = canvas.scene.lines.has(canvas.current);
    const box = canvas.scene.boxes.get(canvas.current);
    return [
      {
        label: canvas.current && !isLine ? 'Add what happens there' : 'Add a lifeline',
        key: 'A',
        run: () => add(drawing),
      },
      ...(isLine
        ? [
            { label: 'Edit its content', key: 'R', run: () => sayAnew(drawing) },
            { label: 'Reconnect its second end', key: 'C', run: () => beginJoin(canvas) },
            { label: 'Reconnect its first end', key: 'Shift C', run: () => beginJoin(canvas, 'from') },
          ]
        : []),
      ...(box
        ? [
            ...(box.parent ? [{ label: 'Edit what happens', key: 'R', run: () => sayAnew(drawing) }] : []),
            { label: 'Message to', key: 'C', run: () => beginJoin(canvas) },
            { label: 'Open its page', run: () => (location.href = at(`element/${box.id}`)) },
          ]
        : []),
      ...(canvas.chosen.size ? [null, { label: 'Remove', key: 'Delete', run: () => remove(drawing) }] : []),
      null,
      ...more,
    ];
  };
  return {
    items,
    keys: {
      a: { run: () => add(drawing) },
      r: { run: () => sayAnew(drawing) },
      Delete: { run: () => remove(drawing) },
    },
    buttons: {
      add: () => add(drawing),
      more: (x, y) => openMenu(canvas.host, more, x, y),
    },
  };
}
