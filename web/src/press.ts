/** How long after a finger lifts its tap may still come. */
const TAP_MS = 300;
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
      due = setTimeout(release, TAP_MS);
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
