// Saving what a form asks for: posts it, says what came of it and shows the page anew.
import { branch, postEdit } from './server.js';
import { refresh } from './live.js';
import { say } from './history.js';

/** Saves data with the revision it builds on. */
export const save = (address, data) => saved(address, (base) => ({ ...data, base }));

/** @param make what is posted, from the revision the edit builds on */
export async function saved(address, make) {
  const { status, body } = await postEdit(`${branch()}${address}`, make);
  const done = status === 200 && body.saved;
  say(done ? `${body.message} · ${body.revision}` : body.message, done);
  if (done) {
    await refresh();
  }
  return done;
}
