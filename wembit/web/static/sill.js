// Figures on the sill go to another day: dragged along it, or by the arrows once they are picked (Shift: a week); + and −
// make more or fewer. What follows is the server's.
(() => {
  const PAUSE_MS = 600; // after the last key
  const SLOP_PX = 5;
  const DAY_MS = 86_400_000;
  const moves = () => document.querySelector("#sill[data-moves]");
  const wide = () => document.querySelector(".sill.wide");
  const day = (iso) => Date.parse(`${iso}T00:00Z`) / DAY_MS;
  const iso = (number) => new Date(number * DAY_MS).toISOString().slice(0, 10);
  const axis = () => JSON.parse(wide().dataset.axis).map(([first, days, x, px]) => ({ first: day(first), days, x, px }));

  function xOf(number) {
    const stretches = axis();
    const mine = stretches.findLast((each) => each.first <= number) || stretches[0];
    return mine.x + (number - mine.first + 0.5) * mine.px;
  }
  function dayAt(x) {
    const stretches = axis();
    const mine = stretches.findLast((each) => each.x <= x) || stretches[0];
    return mine.first + Math.min(mine.days - 1, Math.max(0, Math.floor((x - mine.x) / mine.px)));
  }
  function words(number) {
    const date = new Date(number * DAY_MS);
    return date.toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short", timeZone: "UTC" });
  }

  // Where a figure would go, before it is sent.
  function show(stand, number, count) {
    const from = xOf(day(stand.dataset.due));
    stand.setAttribute("transform", `translate(${xOf(number) - from} 0)`);
    stand.classList.add("moving");
    const line = stand.querySelector("text:last-of-type");
    if (line) line.textContent = count === undefined ? `to ${words(number)}` : `${count}, ${words(number)}`;
  }
  function send(stand, changes) {
    if (moves().hasAttribute("data-tries")) return tryIt(stand, changes);
    const values = { was_due: stand.dataset.due, was_count: stand.dataset.count, ...changes };
    const url = `${stand.getAttribute("href")}move/`;
    const again = `.sill.wide .stand[data-of="${stand.dataset.of}"]`;
    const sent = htmx.ajax("POST", url, { source: stand, target: "#tray", values });
    sent.then(() => document.activeElement === document.body && document.querySelector(again)?.focus({ preventScroll: true }));
  }

  // On a copy an address says all that is tried.
  function tryIt(stand, { due = stand.dataset.due, count = stand.dataset.count }) {
    const asked = new URL(window.location.href);
    const others = asked.searchParams.getAll("c").filter((each) => !each.startsWith(stand.dataset.of));
    asked.searchParams.delete("c");
    for (const each of [...others, `${stand.dataset.of}:${due}:${count}`]) asked.searchParams.append("c", each);
    window.location.assign(asked);
  }

  let drag = null;
  document.addEventListener("pointerdown", (event) => {
    const stand = event.target.closest?.(".sill.wide .stand");
    if (!stand || !moves() || event.button) return;
    drag = { stand, from: event.clientX, number: null };
  });
  document.addEventListener("pointermove", (event) => {
    if (!drag) return;
    if (drag.number === null && Math.abs(event.clientX - drag.from) < SLOP_PX) return;
    if (drag.number === null) drag.stand.setPointerCapture(event.pointerId);
    const scale = wide().getScreenCTM().a;
    const today = day(wide().dataset.today);
    const at = xOf(day(drag.stand.dataset.due)) + (event.clientX - drag.from) / scale;
    drag.number = Math.max(today, dayAt(at));
    show(drag.stand, drag.number);
  });
  document.addEventListener("pointerup", () => {
    if (drag && drag.number !== null) {
      const { stand, number } = drag;
      document.addEventListener("click", (event) => event.preventDefault(), { once: true, capture: true });
      if (iso(number) === stand.dataset.due) window.location.reload();
      else send(stand, { due: iso(number) });
    }
    drag = null;
  });
  document.addEventListener("pointercancel", () => {
    if (drag && drag.number !== null) drag.stand.removeAttribute("transform");
    drag = null;
  });
  document.addEventListener("dragstart", (event) => {
    if (event.target.closest?.(".sill.wide")) event.preventDefault();
  });

  let keyed = null;
  document.addEventListener(
    "keydown",
    (event) => {
      const stand = event.target.closest?.(".sill.wide .stand[aria-current]");
      const isOurs = !event.ctrlKey && !event.metaKey && !event.altKey && document.body.hasAttribute("data-keys");
      if (!stand || !moves() || !isOurs) return;
      const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
      const more = { "+": 1, "-": -1, "−": -1 }[event.key];
      if (!step && !more) return;
      event.preventDefault();
      if (!keyed) keyed = { number: day(stand.dataset.due), count: Number(stand.dataset.count) };
      if (step) keyed.number = Math.max(day(wide().dataset.today), keyed.number + step * (event.shiftKey ? 7 : 1));
      if (more) keyed.count = Math.max(1, keyed.count + more);
      show(stand, keyed.number, keyed.count);
      clearTimeout(keyed.timer);
      const timer = setTimeout(() => {
        const { number, count } = keyed;
        keyed = null;
        send(stand, { due: iso(number), count });
      }, PAUSE_MS);
      keyed.timer = timer;
    },
    true,
  );
})();
