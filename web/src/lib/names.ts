/** Names as people read them. */

const read = (name: string): string => name.trim().toLowerCase().split(/\s+/).join(' ');

/** Whether two names read the same: case and spaces apart. */
export const sameName = (one: string, other: string): boolean => read(one) === read(other);

/** The name, numbered when it is taken. */
export function freeName(name: string, taken: readonly string[]): string {
  const free = (one: string) => !taken.some((other) => sameName(other, one));
  let found = name;
  for (let number = 2; !free(found); number += 1) found = `${name} ${number}`;
  return found;
}
