import { useEffect, useState } from "react";

const takesText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target instanceof HTMLTextAreaElement ||
    (target instanceof HTMLInputElement && !NO_TEXT.includes(target.type)));

const NO_TEXT = ["button", "checkbox", "radio", "file", "range", "color", "submit", "reset", "image", "date"];

/** Whether a field is typed in: then the keyboard of a phone takes half of the screen. */
export function useIsTyping(): boolean {
  const [isTyping, setTyping] = useState(false);
  useEffect(() => {
    const on = (event: FocusEvent) => setTyping(takesText(event.target));
    const off = () => setTyping(false);
    document.addEventListener("focusin", on);
    document.addEventListener("focusout", off);
    return () => {
      document.removeEventListener("focusin", on);
      document.removeEventListener("focusout", off);
    };
  }, []);
  return isTyping;
}
