const SETTLED_MS = 150;

/** Once a window has another size its rules for narrow and wide are looked at again. Where it changes while the page is still being drawn, Chromium
 * was seen to miss that (one try in seventy on a loaded machine), and the bar stayed too wide until another rule came: an empty one comes and goes. */
export function looksAgain(page: Window & typeof globalThis = window) {
  let waiting: ReturnType<typeof setTimeout>;
  const look = () => {
    for (const { sheet } of page.document.querySelectorAll<HTMLStyleElement>("style[data-styled]"))
      sheet?.deleteRule(sheet.insertRule("@media (max-width: 0px) {}", sheet.cssRules.length));
  };
  page.addEventListener("resize", () => {
    clearTimeout(waiting);
    waiting = setTimeout(look, SETTLED_MS);
  });
}
