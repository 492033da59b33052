// A marking drawn on the picked part: while its drawer is open, a press, a line or a loop on the drawing is sent.
(() => {
  const FINER_MM = 0.4;
  let way = null;

  const drawer = () => document.querySelector("details[data-marking][open]");
  const view = (target) => drawer() && target.closest?.("#drawing svg[data-view]");

  function millimetres(svg, event) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    return [point.x, -point.y];
  }

  function trace() {
    const points = way.points.map(([x, y]) => `${x.toFixed(1)} ${(-y).toFixed(1)}`).join("L");
    way.line.setAttribute("d", `M${points}`);
  }

  // Before the drawing's own drag of a part sees it.
  document.addEventListener(
    "pointerdown",
    (event) => {
      const svg = view(event.target);
      if (!svg || event.button) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      const line = document.createElementNS("http://www.w3.org/2000/svg", "path");
      line.setAttribute("class", "marking-way");
      svg.append(line);
      way = { svg, line, id: event.pointerId, points: [millimetres(svg, event)] };
      svg.setPointerCapture(event.pointerId);
    },
    true,
  );
  document.addEventListener("pointermove", (event) => {
    if (!way || event.pointerId !== way.id) return;
    const [x, y] = millimetres(way.svg, event);
    const [u, v] = way.points[way.points.length - 1];
    if (Math.hypot(x - u, y - v) < FINER_MM) return;
    way.points.push([x, y]);
    trace();
  });
  function end(event) {
    if (!way || event.pointerId !== way.id) return;
    const done = way;
    way = null;
    const form = drawer()?.querySelector("form") || drawer()?.closest("form");
    if (!form || event.type === "pointercancel") {
      done.line.remove();
      return;
    }
    form.elements.view.value = done.svg.dataset.view;
    form.elements.way.value = done.points.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(" ");
    form.requestSubmit();
  }
  document.addEventListener("pointerup", end);
  document.addEventListener("pointercancel", end);
  document.addEventListener(
    "click",
    (event) => {
      if (!view(event.target)) return; // a press marks, it picks no other part
      event.preventDefault();
      event.stopImmediatePropagation();
    },
    true,
  );
  document.addEventListener(
    "toggle",
    (event) => {
      if (!event.target.matches?.("details[data-marking]")) return;
      const drawing = document.getElementById("drawing");
      drawing?.classList.toggle("marking", event.target.open);
      if (!event.target.open) return;
      drawing?.scrollIntoView({ block: "nearest" });
      event.target.scrollIntoView({ block: "nearest" });
    },
    true,
  );
})();
