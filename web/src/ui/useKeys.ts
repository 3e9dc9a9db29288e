import { useRef } from "react";

const same = (one: unknown, other: unknown) => one === other || JSON.stringify(one) === JSON.stringify(other);

/**
 * A key for each element of a list, which it keeps when others are put in or taken out, here or in another window: the
 * field that somebody is typing in stays with its item.
 */
export function useKeys(list: readonly unknown[]): readonly string[] {
  const kept = useRef<{ list: readonly unknown[]; keys: string[] }>({ list: [], keys: [] });
  const before = kept.current;
  if (before.list === list && before.keys.length === list.length) return before.keys;
  const shorter = Math.min(before.list.length, list.length);
  let first = 0;
  let last = 0;
  if (before.list.length === list.length) first = shorter;
  else {
    while (first < shorter && same(before.list[first], list[first])) first += 1;
    while (last < shorter - first && same(before.list.at(-1 - last), list.at(-1 - last))) last += 1;
  }
  const keys = list.map(
    (_, index) =>
      (index < first
        ? before.keys[index]
        : index >= list.length - last
          ? before.keys[index - list.length + before.list.length]
          : undefined) ?? crypto.randomUUID(),
  );
  kept.current = { list, keys };
  return keys;
}
