// The colour map: the ground asks for the colour under the finger; lists of the sieve act at once.
(() => {
  const LIGHT = 55; // of a colour asked for on the map by hue, which shows no lightness
  const RADIUS = 300;

  document.addEventListener("change", (event) => {
    if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
    if (event.target.matches("[data-into]")) document.getElementById(event.target.dataset.into).value = event.target.value;
  });

  document.addEventListener("click", (event) => {
    if (event.target.id !== "ground") return;
    const map = document.getElementById("map");
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(map.getScreenCTM().inverse());
    let lab;
    if (map.dataset.view === "hue") lab = [LIGHT, (at.x * map.dataset.rim) / RADIUS, (-at.y * map.dataset.rim) / RADIUS];
    else {
      const hue = ((at.x + 270) / 560) * 2 * Math.PI;
      const chroma = at.x < -290 ? 0 : 30;
      lab = [Math.min(100, Math.max(0, ((RADIUS - at.y) / (2 * RADIUS)) * 100)), chroma * Math.cos(hue), chroma * Math.sin(hue)];
    }
    const address = new URL(location.href);
    ["lot", "item"].forEach((key) => address.searchParams.delete(key));
    address.searchParams.set("colour", lab.map((each) => each.toFixed(1)).join(" "));
    location.assign(address);
  });
})();
