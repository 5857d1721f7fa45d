// Which boxes of a drawing are open: kept in the address, so that a reload and a link show the same.

/** The keys of the open boxes as the address names them; null where the view decides. */
export function openKeys() {
  const { searchParams } = new URL(location.href);
  return searchParams.has('open') ? searchParams.getAll('open').filter(Boolean) : null;
}

export function keepOpen(keys) {
  const address = new URL(location.href);
  address.searchParams.delete('open');
  keys.forEach((key) => address.searchParams.append('open', key));
  if (!keys.length) {
    address.searchParams.set('open', '');
  }
  history.replaceState(history.state, '', address);
}

/** Leaves it to the view again. */
export function forgetOpen() {
  const address = new URL(location.href);
  address.searchParams.delete('open');
  history.replaceState(history.state, '', address);
}
