/** What takes long and how far it is; null when nothing does. */
export type LongWork = { says: string; done: number; of: number } | null;

const ASK_MS = 300;
let now: LongWork = null;
const listeners = new Set<() => void>();

function put(work: LongWork) {
  now = work;
  for (const each of listeners) each();
}

export const longWork = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },
  now: () => now,
};

/** Something long: shown from the start, with how far the server says it is; gone when it ends, however it ends. */
export async function long<T>(says: string, act: (name: string) => Promise<T>): Promise<T> {
  const name = crypto.randomUUID();
  put({ says, done: 0, of: 0 });
  const asking = setInterval(() => {
    fetch(`/api/progress/${name}`)
      .then((answer) => answer.json())
      .then((answer: { says: string; done: number; of: number }) => now && answer.says && put(answer))
      .catch(() => undefined); // the work itself will say what is wrong
  }, ASK_MS);
  try {
    return await act(name);
  } finally {
    clearInterval(asking);
    put(null);
  }
}
