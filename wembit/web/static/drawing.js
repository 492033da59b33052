// The drawing of a figure: the picked part is dragged, or pushed by the arrows while the drawing has the focus.
(() => {
  const KEYS = {
    ArrowLeft: ["right_mm", -1],
    ArrowRight: ["right_mm", 1],
    ArrowUp: ["up_mm", 1],
    ArrowDown: ["up_mm", -1],
    d: ["deeper_mm", 1],
    u: ["deeper_mm", -1],
    t: ["pitch", 5],
    T: ["pitch", -5],
  };
  let drag = null;
  let waiting = null;

  const drawing = () => document.getElementById("drawing");

  // A hundredth of a millimetre is as fine as a hand moves; more digits than a person writes are refused.
  const rounded = (values) =>
    Object.fromEntries(
      Object.entries(values).map(([name, value]) => [name, typeof value === "number" ? value.toFixed(2) : value]),
    );

  // One request at a time; pushes that come meanwhile are added up and sent together.
  function push(values) {
    if (waiting) {
      for (const [name, value] of Object.entries(values)) {
        waiting[name] = typeof value === "number" ? (waiting[name] || 0) + value : value;
      }
      return;
    }
    waiting = {};
    const send = (now) =>
      htmx.ajax("POST", drawing().dataset.nudge, { target: "#stage", values: rounded(now) }).then(() => {
        const next = waiting;
        if (next && Object.keys(next).length && drawing() && drawing().dataset.nudge) {
          waiting = {};
          return send(next);
        }
        waiting = null;
      });
    send(values);
  }

  document.addEventListener(
    "keydown",
    (event) => {
      const here = drawing();
      if (!here || event.target !== here || !here.dataset.nudge || event.ctrlKey || event.metaKey || event.altKey)
        return;
      const [name, step] = KEYS[event.key] || KEYS[event.key.toLowerCase()] || [];
      if (!name) return;
      event.preventDefault();
      push({ view: "side", [name]: step * (event.shiftKey && name !== "pitch" ? 5 : 1) });
    },
    true,
  );

  function millimetres(svg, event) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    return [point.x, point.y];
  }

  document.addEventListener("pointerdown", (event) => {
    const part = event.target.closest && event.target.closest("#drawing [data-part-key]");
    const here = drawing();
    if (!part || event.button !== 0 || !here.dataset.nudge || part.dataset.partKey !== here.dataset.part) return;
    const svg = part.closest("svg");
    drag = { part, svg, start: millimetres(svg, event), id: event.pointerId, moved: false };
    event.preventDefault();
  });

  document.addEventListener("pointermove", (event) => {
    if (!drag || event.pointerId !== drag.id) return;
    const [x, y] = millimetres(drag.svg, event);
    drag.by = [x - drag.start[0], y - drag.start[1]];
    if (!drag.moved && Math.hypot(...drag.by) < 0.8) return;
    drag.moved = true;
    drawing().classList.add("dragging");
    drag.part.setAttribute("transform", `translate(${drag.by[0]} ${drag.by[1]})`);
  });

  function drop(event) {
    if (!drag || event.pointerId !== drag.id) return;
    const done = drag;
    drag = null;
    drawing().classList.remove("dragging");
    if (!done.moved || event.type === "pointercancel") {
      done.part.removeAttribute("transform");
      return;
    }
    done.part.addEventListener(
      "click",
      (click) => {
        click.preventDefault();
        click.stopImmediatePropagation();
      },
      { capture: true, once: true },
    );
    push({ view: done.svg.dataset.view, mirror: done.part.dataset.mirror, right_mm: done.by[0], up_mm: -done.by[1] });
  }
  document.addEventListener("pointerup", drop);
  document.addEventListener("pointercancel", drop);
})();
