// Keys that mean something everywhere leave alone whoever is typing.

/** Whether a key goes into a field or into the editor, whose inner elements are hidden from the page. */
export const isTyping = (event) => event.target.closest('input, textarea, select, .notation-host') !== null;

/** `?` shows what the keys do. */
export function startKeys() {
  const map = document.getElementById('keys');
  document.addEventListener('keydown', (event) => {
    if (map && event.key === '?' && !isTyping(event)) {
      event.preventDefault();
      map.showModal();
    }
  });
  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-keys]')) {
      map?.showModal();
    } else if (event.target === map || event.target.closest('[data-keys-close]')) {
      map.close();
    }
  });
}
