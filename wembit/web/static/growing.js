// A part that a press has made larger, or moved, grows or goes there before the eye, in 200 ms; none does where less motion is
// wished for.
(() => {
  const MS = 200;
  const AS_IT_WAS = 0.05; // mm
  const still = matchMedia("(prefers-reduced-motion: reduce)");
  let before = new Map();

  function boxes() {
    const found = new Map();
    const counts = {};
    for (const each of document.querySelectorAll("#drawing svg[data-view] [data-part-key]")) {
      const { partKey, mirror } = each.dataset;
      const place = `${each.closest("svg").dataset.view} ${partKey} ${mirror}`;
      counts[place] = (counts[place] || 0) + 1;
      found.set(`${place} ${counts[place]}`, each);
    }
    return found;
  }
  function millimetres(each) {
    // as it is seen, a drag not yet sent included
    const { x, y, width, height } = each.getBoundingClientRect();
    const toView = each.ownerSVGElement.getScreenCTM().inverse();
    const [one, two] = [new DOMPoint(x, y), new DOMPoint(x + width, y + height)].map((at) => at.matrixTransform(toView));
    return { x: one.x, y: one.y, width: two.x - one.x, height: two.y - one.y };
  }

  document.addEventListener("htmx:beforeSwap", (event) => {
    const pressed = event.detail.requestConfig?.verb === "post";
    if (pressed && !still.matches) before = new Map([...boxes()].map(([name, each]) => [name, millimetres(each)]));
    else before = new Map();
  });
  document.addEventListener("htmx:afterSettle", () => {
    const was = before;
    before = new Map();
    if (!was.size) return;
    const moved = [];
    for (const [name, each] of boxes()) {
      const old = was.get(name);
      const now = millimetres(each);
      if (!old || !old.width || !old.height || !now.width || !now.height) continue;
      const off = ["x", "y", "width", "height"].map((edge) => Math.abs(old[edge] - now[edge]));
      if (Math.max(...off) < AS_IT_WAS) continue;
      const [wide, high] = [old.width / now.width, old.height / now.height];
      const from = `matrix(${wide}, 0, 0, ${high}, ${old.x - now.x * wide}, ${old.y - now.y * high})`;
      moved.push([each, from]);
    }
    const how = { duration: MS, easing: "ease-out" };
    for (const [each, from] of moved) each.animate([{ transform: from }, { transform: "none" }], how);
  });
})();
