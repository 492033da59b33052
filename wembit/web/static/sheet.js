// On a phone what is picked lies over the picture as a sheet of three heights: low with its name, number and ink button, half,
// full. The grip is dragged, pressed, or moved with the arrows; what is put away leaves the picture where it was.
(() => {
  const ROOM_PX = 12;
  const HEIGHTS = ["low", "half", "full"];
  const root = document.documentElement;
  const tray = () => document.getElementById("tray");
  const grip = () => tray()?.querySelector("[data-grip]");
  const height = () => root.dataset.sheet;
  let drag = null;

  function to(next) {
    root.dataset.sheet = next;
    sessionStorage.setItem("sheet", next);
    name();
  }

  function name() {
    grip()?.setAttribute("aria-label", `The sheet is ${height()}: press for ${after()}, or use the arrows`);
  }
  const after = () => HEIGHTS[(HEIGHTS.indexOf(height()) + 1) % HEIGHTS.length];
  const moved = (by) => HEIGHTS[Math.min(2, Math.max(0, HEIGHTS.indexOf(height()) + by))];

  root.dataset.sheet = sessionStorage.getItem("sheet") === "low" ? "low" : "half"; // a full one would hide what is picked anew
  name();

  document.addEventListener("pointerdown", (event) => {
    if (!event.target.closest("[data-grip]")) return;
    drag = { id: event.pointerId, from: event.clientY, high: tray().getBoundingClientRect().height, moved: false };
    event.target.setPointerCapture(event.pointerId);
  });
  document.addEventListener("pointermove", (event) => {
    if (!drag || event.pointerId !== drag.id) return;
    const by = drag.from - event.clientY;
    drag.moved ||= Math.abs(by) > 6;
    if (!drag.moved) return;
    root.dataset.sheet = "full"; // all of it, as far as it is open
    tray().classList.add("in-drag");
    tray().style.maxHeight = `${drag.high + by}px`;
  });
  function drop(event) {
    if (!drag || event.pointerId !== drag.id) return;
    const open = tray().getBoundingClientRect().height / window.innerHeight;
    const done = drag;
    drag = null;
    tray().classList.remove("in-drag");
    tray().style.maxHeight = "";
    if (done.moved) to(open < 0.32 ? "low" : open < 0.7 ? "half" : "full");
    else if (event.type === "pointerup") to(after());
  }
  document.addEventListener("pointerup", drop);
  document.addEventListener("pointercancel", drop);

  function press(event) {
    if (!event.target.closest?.("[data-grip]")) return;
    if (event.key === "ArrowUp") to(moved(1));
    else if (event.key === "ArrowDown") to(moved(-1));
    else if (event.key === "Enter" || event.key === " ") to(after());
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  document.addEventListener("keydown", press, true); // before the keys of every screen

  // Another thing is picked: its name and number begin at the top, and a full sheet makes room for it in the picture.
  document.addEventListener("htmx:pushedIntoHistory", () => {
    if (height() === "full") to("half");
    if (tray()) tray().scrollTop = 0;
  });
  document.addEventListener("htmx:afterSettle", name);

  document.addEventListener("click", async (event) => {
    const away = event.target.closest("[data-away]");
    if (!away || event.ctrlKey || event.metaKey || document.getElementById("stage")) return;
    event.preventDefault();
    const answer = await fetch(away.href);
    const fresh = new DOMParser().parseFromString(await answer.text(), "text/html").getElementById("tray");
    if (!answer.ok || !fresh) {
      location.assign(away.href);
      return;
    }
    history.replaceState(history.state, "", away.href);
    tray().replaceChildren(...fresh.childNodes);
    htmx.process(tray());
  });

  // What gets the focus in the picture comes into sight above it.
  document.addEventListener("focusin", (event) => {
    const bar = document.querySelector(".tray > .sheet-bar");
    if (!bar?.getClientRects().length || !event.target.closest("#picture a, #picture button, #picture input")) return;
    requestAnimationFrame(() => {
      const under = event.target.getBoundingClientRect().bottom - bar.parentElement.getBoundingClientRect().top;
      if (under > 0) window.scrollBy({ top: under + ROOM_PX, behavior: "instant" });
    });
  });
})();
