/** Keep a text in this browser; one that keeps nothing is no reason to stop. */
export function keepText(key: string, text: string) {
  try {
    localStorage.setItem(key, text);
  } catch {
    // what is typed stays in this page
  }
}
