/** How long after a finger lifts its tap may still come, in ticks: a page that is busy then does not count them. */
const TICKS = 10;
const TICK_MS = 60;
let pressed = false;
let due: ReturnType<typeof setTimeout> | undefined;
let held: (() => void)[] = [];

function release() {
  clearTimeout(due);
  pressed = false;
  const acts = held;
  held = [];
  for (const act of acts) act();
}

/** Wait for the tap of a finger that was lifted: the tap comes after whatever keeps the page busy, and so do the ticks. */
function waitForTap(ticks: number) {
  due = setTimeout(() => (ticks > 1 ? waitForTap(ticks - 1) : release()), TICK_MS);
}

/** Do something that may move what is on the screen: at once, or, while something is pressed, once the press has acted. */
export function afterPress(act: () => void) {
  if (pressed) held.push(act);
  else act();
}

/** Nothing moves between press and release: follows every press from here on. */
export function watchPresses() {
  const options = { capture: true, passive: true };
  window.addEventListener(
    "pointerdown",
    () => {
      clearTimeout(due);
      pressed = true;
    },
    options,
  );
  window.addEventListener(
    "pointerup",
    () => {
      clearTimeout(due);
      waitForTap(TICKS);
    },
    options,
  );
  window.addEventListener("pointercancel", release, options);
  window.addEventListener("blur", release);
  window.addEventListener(
    "click",
    () => {
      clearTimeout(due);
      due = setTimeout(release, 0); // once every listener has acted
    },
    options,
  );
}
