// The colour map: the nearest bag answers, the ground between them asks for its colour; a held finger lifts a loupe; arrows go
// to the bag that lies there. Lists of the sieve act at once.
(() => {
  const FINGER_PX = 22; // so near a mark a finger means it; a mouse half as far
  const HOLD_MS = 350;
  const LOUPE_PX = 62; // its radius, and how far above the finger it stands
  const TIMES = 2.2;
  const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

  const boards = () => document.querySelector(".map-boards");
  const marks = () => [...document.querySelectorAll(".map-boards a.pick circle")];
  const middle = (circle) => {
    const box = circle.getBoundingClientRect();
    return [box.left + box.width / 2, box.top + box.height / 2, box.width / 2];
  };

  document.addEventListener("change", (event) => {
    if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
    if (event.target.matches("[data-into]"))
      document.getElementById(event.target.dataset.into).value = event.target.value;
  });

  // The mark by whose rim, or on which, the finger is; none where all are farther off.
  function nearest(x, y, within) {
    let [best, least] = [null, within];
    for (const circle of marks()) {
      const [cx, cy, r] = middle(circle);
      const off = Math.max(0, Math.hypot(cx - x, cy - y) - r) + (Math.hypot(cx - x, cy - y) / r) * 0.01;
      if (off < least) [best, least] = [circle, off];
    }
    return best?.closest("a");
  }

  function ask(svg, x, y) {
    const at = new DOMPoint(x, y).matrixTransform(svg.getScreenCTM().inverse());
    const address = new URL(boards().dataset.touched, location.href);
    address.search = location.search;
    const said = { x: at.x.toFixed(1), y: at.y.toFixed(1), rim: boards().dataset.rim, board: svg.dataset.board };
    for (const [name, value] of Object.entries(said)) address.searchParams.set(name, value);
    location.assign(address);
  }

  function answer(svg, x, y, within) {
    const mark = nearest(x, y, within);
    if (mark) location.assign(mark.href.baseVal);
    else ask(svg, x, y);
  }

  document.addEventListener("click", (event) => {
    const svg = event.target.closest?.("[data-board]");
    if (!svg || event.target.closest("a") || loupe) return;
    answer(svg, event.clientX, event.clientY, event.pointerType === "mouse" ? FINGER_PX / 2 : FINGER_PX);
  });

  // The loupe: the map under the finger, larger, above it.
  let loupe = null;
  let holding = 0;

  function lift(svg, x, y) {
    const glass = document.createElement("div");
    glass.className = "loupe";
    glass.setAttribute("aria-hidden", "true");
    const copy = svg.cloneNode(true);
    copy.removeAttribute("id");
    for (const link of copy.querySelectorAll("a")) link.removeAttribute("href");
    glass.append(copy);
    document.body.append(glass);
    loupe = { glass, copy, svg };
    move(x, y);
  }

  function move(x, y) {
    const { glass, copy, svg } = loupe;
    const to = svg.getScreenCTM().inverse();
    const half = (LOUPE_PX / TIMES) * Math.hypot(to.a, to.b);
    const at = new DOMPoint(x, y).matrixTransform(to);
    copy.setAttribute("viewBox", `${at.x - half} ${at.y - half} ${2 * half} ${2 * half}`);
    glass.style.setProperty("left", `${x - LOUPE_PX}px`);
    glass.style.setProperty("top", `${Math.max(4, y - 2.6 * LOUPE_PX)}px`);
    Object.assign(loupe, { x, y });
  }

  document.addEventListener("pointerdown", (event) => {
    const svg = event.target.closest?.("[data-board]");
    if (!svg || event.pointerType === "mouse") return;
    const { clientX, clientY } = event;
    clearTimeout(holding);
    holding = setTimeout(() => lift(svg, clientX, clientY), HOLD_MS);
  });
  document.addEventListener(
    "touchmove",
    (event) => {
      if (!loupe) {
        clearTimeout(holding);
        return;
      }
      event.preventDefault(); // the page stays while one looks
      move(event.touches[0].clientX, event.touches[0].clientY);
    },
    { passive: false },
  );
  document.addEventListener("touchend", (event) => {
    clearTimeout(holding);
    if (!loupe) return;
    event.preventDefault();
    const { glass, svg, x, y } = loupe;
    glass.remove();
    loupe = null;
    answer(svg, x, y, FINGER_PX / TIMES);
  });
  for (const end of ["touchcancel", "pointercancel"]) {
    document.addEventListener(end, () => {
      clearTimeout(holding);
      if (end === "touchcancel" && loupe) {
        loupe.glass.remove();
        loupe = null;
      }
    });
  }
  document.addEventListener("contextmenu", (event) => {
    if (event.target.closest?.("[data-board]") && (loupe || holding)) event.preventDefault();
  });

  // Arrows go to the bag that lies that way: near before far, straight before aside.
  document.addEventListener(
    "keydown",
    (event) => {
      const way = ARROWS[event.key];
      const here = document.activeElement?.closest?.(".map-boards a.pick");
      if (!way || !here || event.ctrlKey || event.metaKey || event.altKey) return;
      const [x, y] = middle(here.querySelector("circle"));
      let [best, least] = [null, Infinity];
      for (const circle of marks()) {
        const [cx, cy] = middle(circle);
        const ahead = (cx - x) * way[0] + (cy - y) * way[1];
        const aside = Math.abs((cx - x) * way[1]) + Math.abs((cy - y) * way[0]);
        if (ahead < 1 || aside > 2 * ahead) continue;
        const cost = ahead + 2 * aside;
        if (cost < least) [best, least] = [circle, cost];
      }
      event.preventDefault();
      event.stopPropagation();
      best?.closest("a").focus();
    },
    true,
  );
})();
