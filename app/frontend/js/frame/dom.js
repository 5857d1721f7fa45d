// Creating elements of the page.

/** @param properties of the element; also { role, aria: { label … }, data: { … } } */
export function element(tag, properties = {}, ...children) {
  const { role, aria, data, ...rest } = properties;
  const made = Object.assign(document.createElement(tag), rest);
  if (role) {
    made.setAttribute('role', role);
  }
  Object.entries(aria ?? {}).forEach(([key, value]) => made.setAttribute(`aria-${key}`, value));
  Object.assign(made.dataset, data ?? {});
  made.append(...children);
  return made;
}
