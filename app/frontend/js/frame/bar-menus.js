// Menus of a bar: one is open at a time; a choice, Escape or a click elsewhere closes it.

const open = () => document.querySelector('details.bar-menu[open]');

export function startBarMenus() {
  document.addEventListener('click', (event) => {
    const menu = open();
    const isInside = menu?.contains(event.target);
    if (menu && (!isInside || event.target.closest('.sheet button, .sheet a'))) {
      menu.open = false;
    }
  });
  document.addEventListener('focusin', (event) => {
    const menu = open();
    if (menu && !menu.contains(event.target)) {
      menu.open = false;
    }
  });
  document.addEventListener('keydown', (event) => {
    const menu = open();
    if (event.key === 'Escape' && menu) {
      event.stopPropagation();
      menu.open = false;
      menu.querySelector('summary').focus();
    }
  });
}
