// The clock of the part in hand ticks on the page; past the usual time it asks once, quietly; now and then it says to turn the
// piece over; what dries beside the work says when it is dry. The screen stays on meanwhile.
(() => {
  const EVERY = 5_000; // ms
  const SAID = 0.5; // minutes that the word to turn it over stands
  let [from, awake] = [Date.now(), null];
  const tick = () => {
    const clock = document.querySelector("[data-running]");
    if (!clock) return;
    const minutes = (Number(clock.dataset.running) + Date.now() - from) / 60_000;
    clock.querySelector("[data-minutes]").textContent = Math.round(minutes);
    const asks = clock.querySelector("[data-asks]");
    if (asks.hidden && minutes > Number(clock.dataset.asksAt)) asks.hidden = false;
    const turn = clock.querySelector("[data-turn-every]");
    const every = Number(turn?.dataset.turnEvery);
    if (turn) turn.hidden = minutes < every || minutes % every > SAID;
  };
  const dry = () => {
    for (const wet of document.querySelectorAll("[data-dries]")) {
      if (Date.now() - from < Number(wet.dataset.dries)) continue;
      delete wet.dataset.dries;
      wet.querySelector("[data-is-dry]").hidden = false;
      wet.querySelector("[data-still-wet]").hidden = true;
    }
  };
  const stayAwake = async () => {
    if (!document.querySelector("[data-running]") || document.visibilityState !== "visible") return;
    if (awake && !awake.released) return;
    awake = await navigator.wakeLock?.request("screen").catch(() => null);
  };
  document.addEventListener("htmx:afterSettle", (event) => {
    if (!event.detail.target.querySelector("[data-running], [data-dries]")) return;
    from = Date.now();
    stayAwake();
  });
  document.addEventListener("visibilitychange", stayAwake);
  setInterval(() => (tick(), dry()), EVERY);
  stayAwake();
})();
