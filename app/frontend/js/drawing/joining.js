// Joining two things on a drawing: ports and parts by a connection, in a General view whatever the link rules allow.
import { at, branch, postEdit } from '../frame/server.js';
import { refresh } from '../frame/live.js';
import { say } from '../frame/notice.js';
import { saved } from '../frame/saving.js';
import { element } from '../frame/dom.js';
import { ask, common } from '../grid/dialog.js';
import { makeLinks } from '../links/picker.js';
import { isBehavior, openLead } from './add.js';
import { extent } from './extent.js';
import { openPairing } from './pairing.js';

const called = (scene, key) => {
  const port = scene.ports.get(key);
  return port ? port.port.name : scene.boxes.get(key).title;
};

export async function connect(drawing, from, to) {
  const { scene } = drawing.canvas;
  const isGround = scene.boxes.has(to) && scene.isWithin(scene.boxOf(from), scene.boxes.get(to));
  if (!to || scene.lines.has(to) || isGround) {
    say('Not connected: a line ends at a box or at a port.');
    return;
  }
  if (isBehavior(drawing.form) && scene.boxes.has(from) && scene.boxes.has(to)) {
    openLead(drawing, from, to);
    return;
  }
  await (drawing.form !== 'GENERAL' ? wire(drawing, from, to) : link(scene, from, to));
}

/** Connects, and asks for the ports where several fit. */
async function wire(drawing, from, to) {
  const { status, body } = await postEdit(`${branch()}/drawing/connect`, (base) => ({
    from,
    to,
    extent: extent(),
    base,
  }));
  if (status !== 200) {
    say(`Not connected: ${body.message}`);
    await openPairing(drawing, from, to);
    return;
  }
  if (body.pairs) {
    const { scene } = drawing.canvas;
    const choice = await choose(
      `Connect ${called(scene, from)} with ${called(scene, to)}`,
      'Ports',
      body.pairs.map(({ words }) => words),
      'Connect',
    );
    if (choice !== null) {
      await wire(drawing, body.pairs[choice].from, body.pairs[choice].to);
    }
    return;
  }
  say(`${body.message} · ${body.revision}`, true);
  await refresh();
}

/** Asks for one of several; the number of the one that was chosen, null if none. */
async function choose(title, label, words, action) {
  const input = element(
    'select',
    {},
    ...words.map((text, i) => element('option', { value: String(i), textContent: text })),
  );
  const answer = await ask(common(), title, [{ name: 'one', label, input }], action);
  return answer ? Number(answer.one) : null;
}

/** Asks which of the links that the rules allow is meant, and makes it. */
async function link(scene, from, to) {
  const [left, right] = [scene.boxOf(from), scene.boxOf(to)];
  const response = await fetch(at(`links/between.json?${new URLSearchParams({ left: left.id, right: right.id })}`), {
    headers: { 'X-Requested-With': 'fetch' },
  }).catch(() => null);
  const ways = response?.ok ? await response.json() : null;
  if (!ways?.length) {
    say(
      ways
        ? `The link rules allow no link between ${left.title} and ${right.title}.`
        : 'The server cannot be reached; try again.',
    );
    return;
  }
  const choice = await choose(
    `Link ${left.title}`,
    'It',
    ways.map(({ words }) => `${words} ${right.title}`),
    'Link',
  );
  if (choice !== null) {
    const { kind, out } = ways[choice];
    const refused = await makeLinks(kind, [out ? left.id : right.id], [out ? right.id : left.id]);
    if (refused) {
      say(refused);
    }
  }
}

const MOVABLE = ['connection', 'interface', 'binding'];

/** Leads one end of a line elsewhere. */
export async function reconnect(drawing, line, end, to) {
  const { scene } = drawing.canvas;
  if (!to || scene.lines.has(to)) {
    say('Not reconnected: a line ends at a box or at a port.');
  } else if (isBehavior(drawing.form) && line.id && line.relation === 'succession') {
    await saved(`/element/${line.id}/drawing/redirect`, (base) => ({ to, isSource: end === 'from', base }));
    await drawing.canvas.load();
  } else if (!MOVABLE.includes(line.relation)) {
    say('The ends of this line follow from the model; change what it stands for instead.');
  } else {
    const stays = end === 'from' ? line.to : line.from;
    await saved(`/element/${line.id}/drawing/reend`, (base) => ({ stays, to, extent: extent(), base }));
  }
}
