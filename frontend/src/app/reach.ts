/**
 * Going to a thing on a screen by the names a person reads there: each is pressed in turn as it
 * appears, the last one gets the focus, all of it at the address gone to: the screen before may hold
 * a control of that name too. A touch or a key of the person's own ends it.
 */

const NAMED =
  'button, a[href], input, select, textarea, summary, [role=tab], [role=combobox], [role=button], [role=checkbox], [role=slider], [data-stop]';
const OPEN = ['aria-selected', 'aria-pressed', 'aria-expanded'];

/** What a control is called: by its label, or by what is written in it. */
export function calledOf(element: Element): string {
  const labels = 'labels' in element ? (element.labels as NodeListOf<HTMLElement> | null) : null;
  const text =
    element.getAttribute('aria-label') ?? labels?.[0]?.textContent ?? element.textContent ?? '';
  return text.trim().replace(/\s+/g, ' ');
}

/** The control of a name, or else the first whose name begins so. */
export function controlOf(root: ParentNode, name: string): HTMLElement | SVGElement | undefined {
  const all = [...root.querySelectorAll<HTMLElement | SVGElement>(NAMED)];
  return (
    all.find((element) => calledOf(element) === name) ??
    all.find((element) => calledOf(element).startsWith(name))
  );
}

const isOpen = (element: Element) => OPEN.some((state) => element.getAttribute(state) === 'true');

/** `address`: what the work says it shows, in `data-at`, once it is there. */
export function reach(address: string, names: readonly string[]): () => void {
  let next = 0;
  const watch = new MutationObserver(() => go());
  const end = () => {
    watch.disconnect();
    for (const own of ['pointerdown', 'keydown']) window.removeEventListener(own, end, true);
  };
  const go = () => {
    const work = document.getElementById('work');
    if (work?.dataset.at !== address) return;
    while (next < names.length) {
      const found = controlOf(work, names[next] ?? '');
      if (!found) return;
      next += 1;
      if (next < names.length) {
        if (!isOpen(found)) press(found);
        continue;
      }
      found.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      found.focus();
      end();
    }
  };
  watch.observe(document.body, { childList: true, subtree: true, attributes: true });
  for (const own of ['pointerdown', 'keydown']) window.addEventListener(own, end, true);
  go();
  return end;
}

/** Tabs of the parts take the mouse going down, buttons a click. */
function press(element: HTMLElement | SVGElement) {
  element.dispatchEvent(new MouseEvent('mousedown', { bubbles: true, button: 0 }));
  element.dispatchEvent(new MouseEvent('click', { bubbles: true }));
}
