// Colours by touch: a wool is taken up from the strip, then it is laid on the animal of a colourway.
(() => {
  const form = () => document.getElementById("lay-on");
  const wool = () => form()?.querySelector(":checked");

  function ready() {
    if (!form()) return;
    form().hidden = false;
    document.getElementById("stage").classList.toggle("wool-is-in-hand", Boolean(wool()));
    wool()?.closest("label").scrollIntoView({ block: "nearest" });
  }

  document.addEventListener("click", (event) => {
    const svg = event.target.closest?.("[data-lay-on]");
    const part = svg && event.target.closest("[data-part]");
    if (!part || !form()) return;
    const paint = [event.target.getAttribute("fill"), event.target.getAttribute("stroke")];
    form().elements.way.value = svg.dataset.layOn;
    form().elements.part.value = part.dataset.part;
    form().elements.srgb.value = paint.find((each) => each && each !== "none") || "";
    form().requestSubmit();
  });
  document.addEventListener("change", (event) => {
    if (event.target.form === form()) ready();
  });
  document.addEventListener("htmx:afterSettle", (event) => {
    if (event.detail.target.id === "stage") ready();
  });
  ready();
})();
