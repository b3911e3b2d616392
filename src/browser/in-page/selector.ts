const maxDepth = 24;

/**
 * A CSS selector that finds the element again: from the nearest unique id, child by child; `>>>` steps
 * into a shadow root.
 */
export function selectorOf(element: Element): string {
  const root = element.getRootNode();
  const inside = withinRoot(element, root);
  return root instanceof ShadowRoot ? `${selectorOf(root.host)} >>> ${inside}` : inside;
}

function withinRoot(element: Element, root: Node): string {
  const scope = root instanceof ShadowRoot ? root : element.ownerDocument;
  const steps: string[] = [];
  let at: Element | null = element;
  while (at && steps.length < maxDepth) {
    const id: string = at.id;
    if (id && id.length < 80 && scope.querySelectorAll(`#${CSS.escape(id)}`).length === 1) {
      steps.unshift(`#${CSS.escape(id)}`);
      break;
    }
    steps.unshift(stepOf(at));
    at = at.parentElement;
    if (at === at?.ownerDocument.documentElement) break;
  }
  return steps.join(' > ');
}

function stepOf(element: Element): string {
  const name = element.localName;
  const peers = [...(element.parentElement ?? element.parentNode)!.children].filter(
    (child) => child.localName === name,
  );
  const step = CSS.escape(name);
  return peers.length > 1 ? `${step}:nth-of-type(${peers.indexOf(element) + 1})` : step;
}
