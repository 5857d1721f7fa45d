// What can be done with what is chosen on a drawing: one table for the menu, the keys and the buttons.
import { aligned, distributed } from '../canvas/geometry.js';
import { asPng, asSvg, download, print } from '../canvas/export.js';
import { beginJoin } from '../canvas/keyboard.js';
import { openMenu } from '../canvas/menu.js';
import { at } from '../frame/server.js';
import { say } from '../frame/notice.js';
import { saved } from '../frame/saving.js';
import { openPicker } from '../links/picker.js';
import { isBehavior, openAdd, openRename, openSaying } from './add.js';
import { copy, paste } from './clipboard.js';
import { bookmark } from './bookmarks.js';
import { extent, hasUses } from './extent.js';
import { openExpose } from './expose.js';
import { openShowing } from './showing.js';

const named = () =>
  document.title
    .replace(/ · Pyrite$/, '')
    .replace(/[^\p{L}\p{N} .·-]/gu, '')
    .trim() || 'drawing';

function rearranged(drawing, places) {
  const { boxes, scene } = drawing.canvas;
  const next = places(boxes).map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) }));
  boxes.forEach((box, i) => scene.move(box, next[i].x, next[i].y));
  return drawing.arrange(boxes.map((box, i) => ({ key: box.key, at: [next[i].x, next[i].y] })));
}

/** Removes from the model: boxes and ports as they are, lines by the element they stand for. */
function remove(drawing) {
  const { scene, chosen } = drawing.canvas;
  const things = [...chosen].map((key) => scene.boxes.get(key) ?? scene.ports.get(key)?.port ?? scene.lines.get(key));
  const gone = things.filter((each) => each?.id).map((each) => ({ id: each.id, way: each.from ?? each.key }));
  if (gone.length < things.length) {
    say(
      things.some((each) => each?.relation === 'succession')
        ? 'This order is written with “then” before the step; take the step out, or change it in the text.'
        : 'A line that follows from a type or a specialisation cannot be removed by itself; change the declaration.',
    );
  }
  return gone.length
    ? saved('/drawing/remove', (base) => ({
        things: gone,
        // What a special behaviour inherits is not removed from the general one unawares.
        extent: isBehavior(drawing.form) ? 'USE' : extent(),
        base,
      }))
    : false;
}

function hide(drawing) {
  const { scene, chosen } = drawing.canvas;
  const keys = [...chosen].filter((key) => !scene.lines.has(key));
  return keys.length && drawing.arrange(keys.map((key) => ({ key, hidden: true })));
}

/** Shows or hides all ports of the chosen boxes. */
function ports(drawing, hidden) {
  const { boxes, data } = drawing.canvas;
  const keys = hidden
    ? boxes.flatMap((box) => box.ports.map((port) => port.key))
    : data.hidden.filter((key) => boxes.some((box) => key.startsWith(`${box.key}.`)));
  return keys.length
    ? drawing.arrange(keys.map((key) => ({ key, hidden })))
    : say(hidden ? 'No port is shown there.' : 'Nothing is hidden there.');
}

function showHidden(drawing) {
  const keys = drawing.canvas.data.hidden;
  return keys.length ? drawing.arrange(keys.map((key) => ({ key, hidden: false }))) : say('Nothing is hidden here.');
}

/** Makes what the directions of the ports of a connection say. */
function flows(line) {
  return line.id
    ? saved(`/element/${line.id}/flows`, (base) => ({ base }))
    : say('This line follows from the model and carries nothing.');
}

/** Gives everything back to the layout. */
async function free(drawing) {
  if (drawing.canvas.data.view) {
    await drawing.save('free', {});
  }
  await drawing.canvas.load(true);
  drawing.canvas.fit();
}

export function actsOn(drawing) {
  const box = () => drawing.canvas.scene.boxOf(drawing.canvas.current);
  const go = (path) => {
    location.href = at(path);
  };
  const align = (how) => rearranged(drawing, (boxes) => aligned(boxes, how));
  const spread = (how) => rearranged(drawing, (boxes) => distributed(boxes, how));
  const more = [
    {
      label: 'Save as SVG',
      run: async () => download(new Blob([await asSvg(drawing.canvas)], { type: 'image/svg+xml' }), `${named()}.svg`),
    },
    { label: 'Save as PNG', run: async () => download(await asPng(drawing.canvas), `${named()}.png`) },
    { label: 'Print', run: () => print(drawing.canvas) },
  ];
  const arranging = [
    { label: 'Contents of this view', run: () => openShowing(drawing) },
    { label: 'Bookmark this drawing', run: () => bookmark() },
    { label: 'Show hidden elements', run: () => showHidden(drawing) },
    { label: 'Lay out anew', run: () => free(drawing) },
    null,
  ];
  const items = () => {
    const { canvas } = drawing;
    const { boxes, scene } = canvas;
    const one = box();
    const isLine = scene.lines.has(canvas.current);
    if (!canvas.chosen.size) {
      return [{ label: 'Add here', key: 'A', run: () => openAdd(drawing) }, null, ...arranging, ...more];
    }
    return [
      ...(isLine
        ? [
            {
              label: 'Straighten',
              run: () => drawing.save('arrange', { changes: [], bends: [{ edge: canvas.current, via: [] }] }),
            },
            ...(scene.lines.get(canvas.current).problem
              ? [{ label: 'Show its repairs', run: () => go('findings?rule=misfit') }]
              : []),
            ...(isBehavior(drawing.form)
              ? [{ label: 'Edit its condition', key: 'R', run: () => openSaying(drawing) }]
              : []),
            { label: 'Reconnect its second end', key: 'C', run: () => beginJoin(canvas) },
            { label: 'Reconnect its first end', key: 'Shift C', run: () => beginJoin(canvas, 'from') },
            ...(scene.lines.get(canvas.current).relation === 'flow' || isBehavior(drawing.form)
              ? []
              : [{ label: 'Make the flows it allows', run: () => flows(scene.lines.get(canvas.current)) }]),
          ]
        : boxes.length > 1
          ? []
          : [
              {
                label: 'Open its page',
                run: () => go(hasUses() && one.parent ? `use/${one.key}` : `element/${one.id}`),
              },
              { label: 'Add inside', key: 'A', run: () => openAdd(drawing) },
              { label: 'Rename', key: 'R', run: () => openRename(drawing) },
              { label: 'Expose features at a port', key: 'E', run: () => openExpose(one) },
              { label: 'Join with', key: 'C', run: () => beginJoin(canvas) },
              { label: 'Link', key: 'L', run: () => openPicker([one.id]) },
            ]),
      ...(boxes.length > 1
        ? [
            { label: 'Align left', run: () => align('left') },
            { label: 'Align right', run: () => align('right') },
            { label: 'Align top', run: () => align('top') },
            { label: 'Align bottom', run: () => align('bottom') },
            { label: 'Align in one row', run: () => align('middle') },
            { label: 'Align in one column', run: () => align('centre') },
            ...(boxes.length > 2
              ? [
                  { label: 'Distribute across', run: () => spread('across') },
                  { label: 'Distribute down', run: () => spread('down') },
                ]
              : []),
          ]
        : []),
      ...(boxes.some((each) => each.ports.length) || canvas.data.hidden.length
        ? [
            null,
            { label: 'Hide its ports', run: () => ports(drawing, true) },
            { label: 'Show its ports', run: () => ports(drawing, false) },
          ]
        : []),
      null,
      ...(isLine ? [] : [{ label: 'Copy', key: 'Ctrl C', run: () => copy(drawing) }]),
      { label: 'Paste new ones', key: 'Ctrl V', run: () => paste(drawing, true) },
      null,
      ...(isLine ? [] : [{ label: 'Hide in this view', key: 'H', run: () => hide(drawing) }]),
      { label: 'Remove from the model', key: 'Delete', run: () => remove(drawing) },
    ];
  };
  const key = (run) => ({ run });
  return {
    items,
    keys: {
      a: key(() => openAdd(drawing)),
      r: key(() =>
        drawing.canvas.scene.lines.has(drawing.canvas.current) && isBehavior(drawing.form)
          ? openSaying(drawing)
          : box() && openRename(drawing),
      ),
      e: key(() => box() && openExpose(box())),
      l: key(() => box() && openPicker([box().id])),
      h: key(() => hide(drawing)),
      Delete: key(() => remove(drawing)),
      'Ctrl c': { forAll: true, run: () => copy(drawing) },
      'Ctrl v': key(() => paste(drawing, true)),
      'Ctrl Shift V': key(() => paste(drawing, false)),
    },
    buttons: {
      add: () => openAdd(drawing),
      more: (x, y) => openMenu(drawing.canvas.host, [...(drawing.canvas.editable ? arranging : []), ...more], x, y),
    },
  };
}
