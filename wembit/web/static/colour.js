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

  // A picture with a card: the first touch is the card, the second the wool; the nearer one of two moves afterwards.
  const field = (what, axis) => document.querySelector(`#spots [name=${what}_${axis}]`);

  function mark() {
    const picture = document.getElementById("shot");
    document.querySelectorAll(".spot").forEach((spot) => {
      const [x, y] = ["x", "y"].map((axis) => field(spot.dataset.for, axis).value);
      spot.hidden = x === "" || y === "";
      spot.style.left = `${(Number(x) / picture.naturalWidth) * 100}%`;
      spot.style.top = `${(Number(y) / picture.naturalHeight) * 100}%`;
    });
  }

  document.addEventListener("click", (event) => {
    if (event.target.id !== "shot" || !document.getElementById("spots")) return;
    const picture = event.target, box = picture.getBoundingClientRect();
    const at = [((event.clientX - box.left) / box.width) * picture.naturalWidth, ((event.clientY - box.top) / box.height) * picture.naturalHeight];
    const away = (what) => Math.hypot(field(what, "x").value - at[0], field(what, "y").value - at[1]);
    let what = ["card", "wool"].find((each) => field(each, "x").value === "");
    if (!what) what = away("card") < away("wool") ? "card" : "wool";
    field(what, "x").value = at[0].toFixed(0);
    field(what, "y").value = at[1].toFixed(0);
    mark();
  });
  document.addEventListener("input", (event) => { if (event.target.closest("#spots .line")) mark(); });
  window.addEventListener("load", () => { if (document.getElementById("spots")) mark(); });
})();
