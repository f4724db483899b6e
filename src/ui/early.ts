/**
 * What is pressed or typed while the page's own code is still on its way is kept, in its order, and done as soon as the part that it
 * belongs to is alive: on a slow phone a page is read seconds before it answers, and a press that does nothing is pressed again, or
 * worse, believed.
 *
 * A press that began on a button is that button's, also where the page slid away under it before the finger was lifted.
 *
 * It runs before everything else, from the page's head, and so stands alone: nothing outside this function is reached from within.
 * A node is alive once React has taken it over, by the mark that it leaves on it. Links go by themselves and are left alone.
 */
function keepEarly(): void {
  /** After this a press is passed on whatever it finds, milliseconds. */
  const longestMs = 20_000;
  /** Between two looks, milliseconds. */
  const lookMs = 30;
  /** A finger that moved no farther between down and up has pressed, pixels. */
  const stillPx = 8;
  type Kept = { node: HTMLElement; doIt: () => void; sinceMs: number };
  const kept: Kept[] = [];
  let isWaiting = false;

  const isAlive = (node: Element) => Object.keys(node).some((key) => key.startsWith("__reactProps$"));

  /** One thing a turn: what follows from it has to be on the page before the next. */
  const look = () => {
    const [first] = kept;
    if (first && (!first.node.isConnected || isAlive(first.node) || performance.now() - first.sinceMs > longestMs)) {
      kept.shift();
      if (first.node.isConnected) first.doIt();
    }
    isWaiting = kept.length > 0;
    if (isWaiting) setTimeout(look, lookMs);
  };

  const keep = (node: HTMLElement, doIt: () => void) => {
    kept.push({ node, doIt, sinceMs: performance.now() });
    if (isWaiting) return;
    isWaiting = true;
    setTimeout(look, lookMs);
  };

  const stop = (event: Event) => {
    event.preventDefault();
    event.stopImmediatePropagation();
  };

  const pressable = (target: EventTarget | null): HTMLElement | null =>
    target instanceof Element ? target.closest<HTMLElement>("button, summary, label, input") : null;
  /** Where the finger came down last, and where on the glass. */
  let down: { node: HTMLElement | null; x: number; y: number } | null = null;
  document.addEventListener(
    "pointerdown",
    (event) => {
      down = { node: pressable(event.target), x: event.clientX, y: event.clientY };
    },
    true,
  );
  /** What was pressed and then slid away from under a finger that kept still; null where that is not what happened. */
  const slidAway = (event: MouseEvent): HTMLElement | null => {
    const began = down;
    down = null;
    if (!began?.node?.isConnected || event.detail === 0) return null;
    if (Math.hypot(event.clientX - began.x, event.clientY - began.y) > stillPx) return null;
    const { left, right, top, bottom } = began.node.getBoundingClientRect();
    const isThere = left <= began.x && began.x <= right && top <= began.y && began.y <= bottom;
    return isThere ? null : began.node;
  };

  document.addEventListener(
    "click",
    (event) => {
      const node = pressable(event.target) ?? (event.isTrusted ? slidAway(event) : null);
      // What is alive waits, too, while something before it does: a press on Keep comes after what was typed.
      if (!event.isTrusted || !node || (isAlive(node) && node.contains(event.target as Node) && kept.length === 0))
        return;
      if (node instanceof HTMLInputElement && !["checkbox", "radio", "submit", "button", "file"].includes(node.type))
        return;
      stop(event);
      keep(node, () => node.click());
    },
    true,
  );
  document.addEventListener(
    "submit",
    (event) => {
      const form = event.target;
      if (!event.isTrusted || !(form instanceof HTMLFormElement) || isAlive(form)) return;
      stop(event);
      keep(form, () => form.requestSubmit());
    },
    true,
  );
  type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;
  /** What was typed into a field that is not alive, which may forget it as it comes to life. */
  const typed = new Map<Field, string>();
  const tell = (node: Field) => {
    const value = typed.get(node);
    if (value === undefined) return;
    typed.delete(node);
    const fire = () =>
      node.dispatchEvent(new Event(node instanceof HTMLSelectElement ? "change" : "input", { bubbles: true }));
    const set = Object.getOwnPropertyDescriptor(Object.getPrototypeOf(node), "value")?.set;
    // A field that is only marked is taken over by this first event. From then on React knows what it holds, typed or not, and hears
    // of nothing that is no change: so something else is put there by the field's own setter, and what was typed past it.
    fire();
    if (!(node instanceof HTMLSelectElement)) node.value = value === "" ? "0" : "";
    set?.call(node, value);
    fire();
  };
  // A field that came to life between two keys is told what it was given before, so that the next key is added to it.
  document.addEventListener(
    "beforeinput",
    (event) => {
      const node = event.target as Field | null;
      if (event.isTrusted && node && typed.has(node) && isAlive(node)) tell(node);
    },
    true,
  );
  document.addEventListener(
    "input",
    (event) => {
      const node = event.target;
      const isField =
        node instanceof HTMLSelectElement ||
        node instanceof HTMLTextAreaElement ||
        (node instanceof HTMLInputElement && !["checkbox", "radio", "file"].includes(node.type));
      if (!event.isTrusted || !isField || isAlive(node)) return;
      if (!typed.has(node)) keep(node, () => tell(node));
      typed.set(node, node.value);
    },
    true,
  );
}

/** The same as a script for the head of the page. */
export const EARLY = `(${keepEarly.toString()})()`;
