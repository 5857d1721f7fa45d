// Prints the page as what stands in its middle; the style sheet leaves out the rest.

export function startPrinting() {
  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-print]')) {
      window.print();
    }
  });
}
