// Markup that is pasted into a text comes in as the little that texts of requirements have: emphasis, lists, tables, links.

const RICH = 'b, strong, i, em, ul, ol, table, a[href]';
const NEVER =
  'script, style, noscript, template, title, meta, link, iframe, object, embed, form, input, button, img, svg';
const LINKS = /^(https?|mailto):/i;

const parsed = (html) => new DOMParser().parseFromString(html, 'text/html').body;

/** Takes away what texts do not have, and of links to elsewhere all but the words. */
function cleaned(body) {
  body.querySelectorAll(NEVER).forEach((each) => each.remove());
  body
    .querySelectorAll('a')
    .forEach((each) => LINKS.test(each.getAttribute('href') ?? '') || each.replaceWith(...each.childNodes));
  return body;
}

/**
 * Converts HTML to the markup of requirement texts. The HTML is parsed in a document of its own, so nothing in it is run
 * or fetched.
 */
async function textOf(body) {
  const { Converter, tables } = await import('/vendor/markup.js');
  const converter = new Converter({ bulletListMarker: '-', emDelimiter: '*' });
  converter.use(tables);
  converter.addRule('heading', {
    filter: ['h1', 'h2', 'h3', 'h4', 'h5', 'h6'],
    replacement: (content) => `\n\n**${content}**\n\n`,
  });
  return converter
    .turndown(cleaned(body))
    .replace(/^(\s*)- {3}/gm, '$1- ')
    .replace(/\u00a0/g, ' ')
    .trim();
}

async function putIn(field, body) {
  const text = await textOf(body);
  field.setRangeText(text, field.selectionStart, field.selectionEnd, 'end');
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

export function startMarkup() {
  document.addEventListener('paste', (event) => {
    const field = event.target.closest?.('textarea[data-rich]');
    const body = field && parsed(event.clipboardData.getData('text/html'));
    // What has nothing that the plain text of the clipboard would lose is pasted as any text is.
    if (body?.querySelector(RICH)) {
      event.preventDefault();
      putIn(field, body);
    }
  });
}
