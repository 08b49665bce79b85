/** Whether keys go into a text where an element has the focus. */
export function isTyping(element: EventTarget | null): boolean {
  return (
    element instanceof HTMLElement && element.closest('input, textarea, [contenteditable="true"]') !== null
  );
}
