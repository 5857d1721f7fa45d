// Saving what a form asks for: posts it, says what came of it and shows the page anew.
import { branch, postEdit } from './server.js';
import { refresh } from './live.js';
import { say } from './notice.js';

/** Saves data with the revision it builds on. */
export const save = (address, data) => saved(address, (base) => ({ ...data, base }));

/** Saves data for a dialog that stays while it is refused; gives the sentence that refuses it, or '' if it is saved. */
export async function refusal(address, data) {
  const { done, message } = await posted(address, (base) => ({ ...data, base }));
  return done ? '' : message;
}

/** @param make what is posted, from the revision the edit builds on */
export async function saved(address, make) {
  const { done, message } = await posted(address, make);
  if (!done) {
    say(message, false);
  }
  return done;
}

async function posted(address, make) {
  const { status, body } = await postEdit(`${branch()}${address}`, make);
  const done = status === 200 && body.saved;
  if (done) {
    say([body.message, body.revision].filter(Boolean).join(' · '), Boolean(body.revision));
    await refresh();
  }
  return { done, message: body.message };
}
