// A little more, a little less: the two keys beside a weight. How far one goes follows from what stands there.
(() => {
  const steps = [[0.1, 0.01], [2, 0.1], [20, 0.5], [Infinity, 5]];
  const show = (root) => root.querySelectorAll("[data-step]").forEach((key) => (key.hidden = false));
  const stepped = (text, by) => {
    const said = text.trim().match(/^([\d.,]+)(.*)$/);
    if (!said) return null;
    const [was, comma] = [Number(said[1].replace(",", ".")), said[1].includes(",")];
    if (Number.isNaN(was)) return null;
    const step = steps.find(([below]) => was + Math.min(by, 0) * 1e-9 < below)[1];
    const places = Math.max((said[1].split(/[.,]/)[1] || "").length, step < 0.1 ? 2 : step < 1 ? 1 : 0);
    const now = Math.max(0, was + by * step).toFixed(places);
    return (comma ? now.replace(".", ",") : now) + said[2];
  };
  document.addEventListener("click", (event) => {
    const key = event.target.closest("[data-step]");
    const field = key?.parentElement.querySelector("input");
    const now = field && stepped(field.value, Number(key.dataset.step));
    if (now === null || now === undefined) return;
    field.value = now;
    field.dispatchEvent(new Event("input", { bubbles: true }));
  });
  document.addEventListener("htmx:afterSettle", (event) => show(event.detail.target));
  show(document);
})();
