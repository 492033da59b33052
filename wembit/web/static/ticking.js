// The clock of the part in hand ticks on the page; past the usual time it asks once, quietly. The screen stays on meanwhile.
(() => {
  const EVERY = 10_000; // ms
  let [from, awake] = [Date.now(), null];
  const tick = () => {
    const clock = document.querySelector("[data-running]");
    if (!clock) return;
    const minutes = (Number(clock.dataset.running) + Date.now() - from) / 60_000;
    clock.querySelector("[data-minutes]").textContent = Math.round(minutes);
    const asks = clock.querySelector("[data-asks]");
    if (asks.hidden && minutes > Number(clock.dataset.asksAt)) asks.hidden = false;
  };
  const stayAwake = async () => {
    if (!document.querySelector("[data-running]") || document.visibilityState !== "visible") return;
    if (awake && !awake.released) return;
    awake = await navigator.wakeLock?.request("screen").catch(() => null);
  };
  document.addEventListener("htmx:afterSettle", (event) => {
    if (!event.detail.target.querySelector("[data-running]")) return;
    from = Date.now();
    stayAwake();
  });
  document.addEventListener("visibilitychange", stayAwake);
  setInterval(tick, EVERY);
  stayAwake();
})();
