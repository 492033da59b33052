// The panel of the scale that is not there: what lies on it, and what it shows of that.
(() => {
  const [shown, state, heap] = ["shown", "state", "heap"].map((id) => document.getElementById(id));
  const words = { overload: "too heavy", unplugged: "no power" };
  const show = (reading) => {
    shown.textContent = reading.grams === null ? "––––" : `${reading.grams.toFixed(2)} g`;
    state.textContent = words[reading.state] || (reading.stable ? "steady" : "…");
    const size = Math.min(84, 9 * Math.cbrt(Math.max(0, reading.grams || 0)) * 2);
    [heap.style.width, heap.style.height] = [`${1.6 * size}px`, `${size}px`];
  };
  document.addEventListener("click", (event) => {
    const { lay, do: verb, on } = event.target.dataset;
    if (!lay && !verb) return;
    const path = lay ? "/panel/lay" : verb === "tare" ? "/tare" : `/panel/${verb}`;
    fetch(path, { method: "POST", body: new URLSearchParams(lay ? { grams: lay } : { on: on || "" }) });
  });
  new EventSource("/readings").onmessage = (event) => show(JSON.parse(event.data));
})();
