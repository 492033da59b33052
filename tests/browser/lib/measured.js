// What is too small on a page as it is drawn: written under 12 px, or to be pressed and under 24 px (44 on a phone).
() => {
  const shown = (node) =>
    node.getClientRects().length > 0 &&
    getComputedStyle(node).visibility !== "hidden" &&
    !node.closest(".visually-hidden, .skip, details:not([open]) > :not(summary)");
  const found = new Set();
  const say = (node, what) => {
    const where = node.closest("[class]")?.getAttribute("class") || node.tagName;
    found.add(`${where} “${(node.textContent || node.name || "").trim().replace(/\s+/g, " ").slice(0, 24)}” ${what}`);
  };
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (texts.nextNode()) {
    const node = texts.currentNode.parentElement;
    if (!texts.currentNode.textContent.trim() || node.closest("script, style, option, noscript, title, desc")) continue;
    if (!shown(node)) continue;
    const drawn = node.ownerSVGElement ? node.getScreenCTM() : null; // a drawing is scaled
    const px = parseFloat(getComputedStyle(node).fontSize) * (drawn ? Math.hypot(drawn.a, drawn.b) : 1);
    if (px < 11.95) say(node, `written in ${px.toFixed(1)} px`);
  }
  const least = window.matchMedia("(max-width: 899px)").matches ? 44 : 24;
  const presses = "a[href], button, input:not([type=hidden]), select, summary, label.tick, textarea";
  for (const node of document.querySelectorAll(presses)) {
    if (!shown(node) || node.ownerSVGElement) continue; // what is drawn is also in a list, or the nearest answers
    if (node.matches("input[type=checkbox], input[type=radio]") && node.closest("label")) continue;
    if (getComputedStyle(node).display === "inline" && node.closest("p, li, td, dd, figcaption")) continue; // in a sentence
    const { width, height } = node.getBoundingClientRect();
    if (Math.min(width, height) < least - 0.5) say(node, `${width.toFixed(0)} × ${height.toFixed(0)} px to press`);
  }
  return [...found];
};
