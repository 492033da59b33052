// A figure pulled to another height: by its tip on the drawing, which moves the slider, or by the slider itself. Until the
// server's drawing comes, the drawing that stands there is stretched.
(() => {
  let pulled = null;

  const slider = () => document.getElementById("f-pull");
  const millimetres = (field) => Number(field.value) * Number(field.dataset.unitMm);

  function stretch() {
    const field = slider();
    const times = millimetres(field) / Number(field.dataset.highMm);
    document.querySelector(".growing")?.setAttribute("transform", `scale(${times})`);
  }

  document.addEventListener("input", (event) => {
    if (event.target === slider()) stretch();
  });
  document.addEventListener(
    "touchstart",
    (event) => {
      if (event.target.closest?.("[data-pulls]")) event.preventDefault(); // the page stays where it is
    },
    { passive: false },
  );
  document.addEventListener("pointerdown", (event) => {
    const tip = event.target.closest?.("[data-pulls]");
    if (!tip || event.button) return;
    event.preventDefault();
    const svg = tip.ownerSVGElement;
    tip.setPointerCapture(event.pointerId);
    pulled = { id: event.pointerId, from: event.clientY, high: millimetres(slider()), px: svg.getScreenCTM().d };
  });
  document.addEventListener("pointermove", (event) => {
    if (!pulled || event.pointerId !== pulled.id) return;
    const field = slider();
    field.value = (pulled.high + (pulled.from - event.clientY) / pulled.px) / Number(field.dataset.unitMm);
    field.dispatchEvent(new Event("input", { bubbles: true }));
  });
  for (const ending of ["pointerup", "pointercancel"]) {
    document.addEventListener(ending, (event) => {
      if (!pulled || event.pointerId !== pulled.id) return;
      pulled = null;
      slider().dispatchEvent(new Event("change", { bubbles: true }));
    });
  }
})();
