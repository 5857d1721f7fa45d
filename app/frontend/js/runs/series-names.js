// What series are called in a plot, where their paths are too long.

/** The last names of a path; of `used(gate.unit.power)` it is still `used(power)`. */
export function lastNames(path, count) {
  const [, call = '', names, end] = path.match(/^(\w+\()?(.*?)(\)?)$/);
  return `${call}${names.split('.').slice(-count).join('.')}${end}`;
}
