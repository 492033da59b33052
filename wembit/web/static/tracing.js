// The board on which a part is drawn: points and marks by mouse, finger and keyboard. The table of points is what is sent.
(() => {
  const board = () => document.getElementById("board");
  const form = () => document.getElementById("trace");
  const mm = () => Number(board().dataset.mm);
  const high = () => Number(board().dataset.height);
  let drag = null;
  let weighing = null;
  let later = 0;
  let touched = 0; // rises with every point that was put, moved or taken away
  let skipped = false; // an answer that came while the hand was on the board

  const rows = () => [...document.querySelectorAll("#points li")].map((row) => row.querySelectorAll("input.num"));
  const filled = () => rows().filter(([x, y]) => x.value !== "" && y.value !== "");
  const place = ([x, y]) => [Number(x.value) / mm(), high() - Number(y.value) / mm()];

  function write([x, y], [px, py]) {
    x.value = (px * mm()).toFixed(2);
    y.value = ((high() - py) * mm()).toFixed(2);
  }

  function redraw() {
    const points = filled().map(place);
    const way =
      points.map(([x, y], n) => `${n ? "L" : "M"}${x} ${y}`).join("") +
      (board().dataset.closed && points.length ? "Z" : "");
    for (const id of ["way", "way-under"]) document.getElementById(id).setAttribute("d", way);
    points.forEach(([x, y], n) => move(document.getElementById(`point-${n}`), x, y));
    const [a, b] = [0, 1].map(mark);
    document.getElementById("mark-way").setAttribute("d", `M${a[0]} ${a[1]}L${b[0]} ${b[1]}`);
    [a, b].forEach(([x, y], n) => move(document.getElementById(`mark-${n}`), x, y));
  }

  function move(node, x, y) {
    if (node)
      node.setAttribute(
        "transform",
        node.getAttribute("transform").replace(/translate\([^)]*\)/, `translate(${x} ${y})`),
      );
  }

  const markField = (n, axis) => form().elements[`mark_${axis}${n}`];
  const mark = (n) => [Number(markField(n, "x").value), Number(markField(n, "y").value)];

  // While a point moves the weight follows; an answer that is overtaken is dropped.
  async function weigh() {
    if (weighing) weighing.abort();
    weighing = new AbortController();
    try {
      const answer = await fetch(form().action, {
        method: "POST",
        body: asked(),
        headers: { "HX-Request": "true" },
        signal: weighing.signal,
      });
      const fresh = new DOMParser().parseFromString(await answer.text(), "text/html").getElementById("drawn-weight");
      const here = document.getElementById("drawn-weight");
      if (fresh && here) here.replaceWith(fresh);
    } catch (fault) {
      if (fault.name !== "AbortError") throw fault;
    }
  }

  function asked() {
    const data = new FormData(form());
    data.set("weigh", "1");
    return data;
  }

  function send(focus) {
    touched += 1;
    skipped = false;
    clearTimeout(later);
    if (weighing) weighing.abort();
    board().dataset.focus = focus || "";
    form().requestSubmit();
  }

  document.addEventListener("htmx:afterSettle", (event) => {
    if (event.target.id !== "stage" || !board()) return;
    const wanted = sessionStorage.getItem("board-focus");
    sessionStorage.removeItem("board-focus");
    if (wanted && document.getElementById(wanted)) document.getElementById(wanted).focus();
  });
  // An answer that is older than the hand is not drawn: the next request brings all points, these too.
  const isOurs = (config) => config.elt.id === "trace";
  document.addEventListener("htmx:beforeRequest", ({ detail: { requestConfig } }) => {
    if (isOurs(requestConfig)) requestConfig.touched = touched;
  });
  document.addEventListener("htmx:beforeSwap", (event) => {
    const { requestConfig } = event.detail;
    if (!isOurs(requestConfig) || !(drag || touched !== requestConfig.touched)) return;
    event.detail.shouldSwap = false;
    skipped = true;
  });
  document.addEventListener("htmx:beforeRequest", () => {
    if (board() && board().dataset.focus) sessionStorage.setItem("board-focus", board().dataset.focus);
  });

  function at(event) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(board().getScreenCTM().inverse());
    return [point.x, point.y];
  }

  // A new point goes into the edge on which it was clicked, else to the end.
  function insert(where) {
    const all = rows();
    const points = filled().map(place);
    const near = (1.5 * Number(board().viewBox.baseVal.width)) / 110;
    let after = points.length;
    const count = board().dataset.closed ? points.length : points.length - 1;
    for (let n = 0; points.length > 1 && n < count; n += 1) {
      if (beside(where, points[n], points[(n + 1) % points.length]) < near) after = n + 1;
    }
    const values = points.map((each) => each);
    values.splice(after, 0, where);
    values.forEach((each, n) => write(all[n] || fresh(n), each));
    send(`point-${after}`);
  }

  function fresh(n) {
    const row = document.querySelector("#points li:last-child").cloneNode(true);
    const fields = row.querySelectorAll("input.num");
    fields[0].name = `x_${n}`;
    fields[1].name = `y_${n}`;
    document.getElementById("points").append(row);
    return fields;
  }

  function beside([x, y], [a, b], [c, d]) {
    const length = (c - a) ** 2 + (d - b) ** 2 || 1;
    const t = Math.max(0, Math.min(1, ((x - a) * (c - a) + (y - b) * (d - b)) / length));
    return Math.hypot(x - a - t * (c - a), y - b - t * (d - b));
  }

  document.addEventListener("pointerdown", (event) => {
    if (!board() || !form() || event.button !== 0 || !event.target.closest("#board")) return;
    const handle = event.target.closest(".handle");
    drag = { handle, id: event.pointerId, start: at(event), moved: false };
    if (handle) handle.focus();
    event.preventDefault();
  });

  document.addEventListener("pointermove", (event) => {
    if (!drag || event.pointerId !== drag.id) return;
    const here = at(event);
    if (
      !drag.moved &&
      Math.hypot(here[0] - drag.start[0], here[1] - drag.start[1]) < Number(board().viewBox.baseVal.width) / 300
    )
      return;
    drag.moved = true;
    if (!drag.handle) return;
    put(drag.handle, here);
    weigh();
  });

  function put(handle, [x, y]) {
    touched += 1;
    if (handle.dataset.mark) {
      markField(handle.dataset.mark, "x").value = x.toFixed(2);
      markField(handle.dataset.mark, "y").value = y.toFixed(2);
      form().elements.scaled.checked = true;
    } else {
      write(rows()[Number(handle.dataset.point)], [x, y]);
    }
    redraw();
  }

  function drop(event) {
    if (!drag || event.pointerId !== drag.id) return;
    const done = drag;
    drag = null;
    if (event.type === "pointercancel") return;
    if (done.handle && done.moved) send(done.handle.id);
    else if (!done.handle && !done.moved) insert(done.start);
    else if (skipped) send(done.handle && done.handle.id);
  }
  document.addEventListener("pointerup", drop);
  document.addEventListener("pointercancel", drop);

  const STEPS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
  document.addEventListener(
    "keydown",
    (event) => {
      const handle = event.target.closest && event.target.closest("#board .handle");
      if (!handle || event.ctrlKey || event.metaKey || event.altKey) return;
      const step = STEPS[event.key];
      if (step) {
        const size = (event.shiftKey ? 5 : 1) / mm();
        const from = handle.dataset.mark ? mark(handle.dataset.mark) : place(rows()[Number(handle.dataset.point)]);
        put(handle, [from[0] + step[0] * size, from[1] + step[1] * size]);
        weigh();
        clearTimeout(later);
        later = setTimeout(() => send(handle.id), 600);
      } else if ((event.key === "Delete" || event.key === "Backspace") && handle.dataset.point) {
        rows()[Number(handle.dataset.point)].forEach((field) => {
          field.value = "";
        });
        send(`point-${Math.max(0, Number(handle.dataset.point) - 1)}`);
      } else if ((event.key === "Insert" || event.key === "+") && handle.dataset.point) {
        const points = filled().map(place);
        const n = Number(handle.dataset.point);
        const next = points[(n + 1) % points.length];
        const values = [...points];
        values.splice(n + 1, 0, [(points[n][0] + next[0]) / 2, (points[n][1] + next[1]) / 2]);
        const all = rows();
        values.forEach((each, k) => write(all[k] || fresh(k), each));
        send(`point-${n + 1}`);
      } else return;
      event.preventDefault();
      event.stopPropagation();
    },
    true,
  );
})();
