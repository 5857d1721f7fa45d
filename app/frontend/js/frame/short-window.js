// In a short window, as at 200 %, the head of a page gives way before the list below it scrolls.

export function startShortWindow() {
  document.addEventListener(
    'wheel',
    (event) => {
      const page = event.target.closest?.('.grid-table, .tree')?.closest('.grid-page, .outline-page');
      if (!page || event.ctrlKey || event.deltaY <= 0 || getComputedStyle(page).overflowY !== 'auto') {
        return;
      }
      const left = page.scrollHeight - page.clientHeight - page.scrollTop;
      if (left >= 1) {
        page.scrollTop += Math.min(left, event.deltaY);
        event.preventDefault();
      }
    },
    { passive: false },
  );
}
