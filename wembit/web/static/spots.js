// A picture with a card: the first touch is the card, the second the wool; the nearer one of two moves afterwards.
(() => {
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
    const picture = event.target,
      box = picture.getBoundingClientRect();
    const at = [
      ((event.clientX - box.left) / box.width) * picture.naturalWidth,
      ((event.clientY - box.top) / box.height) * picture.naturalHeight,
    ];
    const away = (what) => Math.hypot(field(what, "x").value - at[0], field(what, "y").value - at[1]);
    let what = ["card", "wool"].find((each) => field(each, "x").value === "");
    if (!what) what = away("card") < away("wool") ? "card" : "wool";
    field(what, "x").value = at[0].toFixed(0);
    field(what, "y").value = at[1].toFixed(0);
    mark();
  });
  document.addEventListener("input", (event) => {
    if (event.target.closest("#spots .line")) mark();
  });
  window.addEventListener("load", () => {
    if (document.getElementById("spots")) mark();
  });
})();
